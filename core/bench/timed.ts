/** What something gives, and the milliseconds that it takes. */
export const timed = <T>(run: () => T): [T, number] => {
  const start = performance.now()
  return [run(), performance.now() - start]
}
