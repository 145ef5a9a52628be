import pino from 'pino'

/**
 * Lines of JSON if `LOG_JSON=yes`, otherwise plain words for the terminal of `npm start`. Neither holds typed text,
 * names or addresses.
 */
const lines =
  process.env.LOG_JSON === 'yes' ? pino({ base: { pid: process.pid } }, pino.destination(2)) : null

/** Notes that something went wrong. */
export function logProblem(words: string, cause?: unknown): void {
  if (lines) lines.error({ err: cause }, words)
  else if (cause === undefined) console.error(words)
  else console.error(words, cause)
}

/** Notes a request that was answered; only as a line of JSON. */
export function logRequest(answered: {
  readonly method: string
  readonly route: string
  readonly status: number
  readonly seconds: number
}): void {
  lines?.info(answered, 'answered')
}
