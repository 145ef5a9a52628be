/**
 * What work that is done step by step comes to, done to its end at once.
 * @param going yields between its steps, so that whoever waits may turn to something newer
 */
export function atOnce<T>(going: Generator<unknown, T, void>): T {
  for (;;) {
    const { done, value } = going.next()
    if (done) return value
  }
}
