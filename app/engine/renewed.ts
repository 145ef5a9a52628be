/** A background worker with its termination. */
export interface Beside<T> {
  readonly target: T
  readonly end: () => void
}

/** A worker was ended because it gave no answer. */
export class NoAnswer extends Error {}

/** Longest wait for an answer, s: seconds in which the page itself ran, so that a machine may sleep meanwhile. */
const mostSeconds = 30

/**
 * A helper of the page that starts with the first question, and again after it failed or gave no answer. Questions
 * that were waiting then fail with an error.
 * @param start starts it; called with a function to call when it fails
 */
export function renewed<T extends object>(
  start: (failed: (message: string) => void) => Beside<T>,
  seconds = mostSeconds,
): T {
  let current: Beside<T> | null = null
  const waiting = new Set<(cause: Error) => void>()
  const endWith = (cause: Error): void => {
    current?.end()
    current = null
    for (const reject of waiting) reject(cause)
    waiting.clear()
  }
  const begin = (): Beside<T> => {
    const begun = start((message) => {
      if (current === begun) endWith(new Error(message))
    })
    return begun
  }
  const call = (name: string, args: readonly unknown[]): Promise<unknown> =>
    new Promise((resolve, reject) => {
      const { target } = (current ??= begin())
      let passed = 0
      const watch = setInterval(() => {
        if (++passed >= seconds)
          endWith(new NoAnswer(`This took over ${seconds} s with the values entered, and was stopped.`))
      }, 1000)
      const settle = <V>(how: (value: V) => void) => {
        return (value: V): void => {
          clearInterval(watch)
          waiting.delete(give)
          how(value)
        }
      }
      const give = settle(reject)
      waiting.add(give)
      const method = (target as Record<string, (...args: readonly unknown[]) => Promise<unknown>>)[name]!
      method(...args).then(settle(resolve), give)
    })
  return new Proxy({} as T, {
    // It is not a promise itself, so `await` returns it as it is.
    get: (_, name) =>
      typeof name === 'string' && name !== 'then' ? (...args: unknown[]) => call(name, args) : undefined,
  })
}
