import { createEventStream, type H3Event } from 'h3'

/** Readings of a stand-in, as they are sent. */
interface SentReadings {
  /** All there are, each as its numbers. */
  readonly readings: readonly (readonly number[])[]
  /** How many the receiver has already: the stream goes on behind them. */
  readonly from: number
  /** How many are due this many seconds after the stream began. */
  readonly dueAfter: (seconds: number) => number
  /**
   * Where a stream stops without a word that begins before it: like any radio link, that of a stand-in fails once.
   */
  readonly dropsAt: number
}

const tickMs = 200

/**
 * Sends readings as server-sent events, as they fall due, and says when the last one was sent. A client
 * that lost the connection asks again from its last reading; the server keeps no state.
 */
export function sendReadings(
  event: H3Event,
  { readings, from, dueAfter, dropsAt }: SentReadings,
): Promise<void> {
  const reaches = from < dropsAt ? Math.min(dropsAt, readings.length) : readings.length
  const stream = createEventStream(event)
  const begun = Date.now()
  let sent = from
  const send = async (): Promise<void> => {
    const due = Math.min(reaches, dueAfter((Date.now() - begun) / 1000))
    if (due > sent) await stream.push(JSON.stringify(readings.slice(sent, due)))
    sent = Math.max(sent, due)
    if (sent < reaches) return
    clearInterval(timer)
    if (reaches === readings.length) await stream.push({ event: 'end', data: '{}' })
    await stream.close()
  }
  const timer = setInterval(() => void send(), tickMs)
  stream.onClosed(() => {
    clearInterval(timer)
  })
  return stream.send()
}
