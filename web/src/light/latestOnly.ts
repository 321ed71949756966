/**
 * Does one thing at a time, and of what is asked for meanwhile only the latest. What fails is told, and does not stop what comes
 * after it.
 */
export function latestOnly<A, R>(
  work: (asked: A) => Promise<R>,
  told: { done: (result: R, asked: A) => void; failed: (error: unknown) => void },
): (asked: A) => void {
  let waiting: { asked: A } | undefined
  let isBusy = false
  const run = async () => {
    isBusy = true
    while (waiting) {
      const { asked } = waiting
      waiting = undefined
      try {
        told.done(await work(asked), asked)
      } catch (error) {
        told.failed(error)
      }
    }
    isBusy = false
  }
  return (asked) => {
    waiting = { asked }
    if (!isBusy) void run()
  }
}
