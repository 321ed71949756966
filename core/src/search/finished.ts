/** What work that goes stretch by stretch comes to, done to its end. */
export function finished<T>(steps: Generator<unknown, T>): T {
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
  }
}
