/**
 * Runs stepwise work to its end and returns its result.
 * @param going yields between its steps, so that a caller can stop and start newer work
 */
export function atOnce<T>(going: Generator<unknown, T, void>): T {
  for (;;) {
    const { done, value } = going.next()
    if (done) return value
  }
}
