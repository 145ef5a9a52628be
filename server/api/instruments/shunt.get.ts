import { createEventStream, getQuery } from 'h3'
import Joi from 'joi'
import { readingsPerSecond, standInStream } from '#core/loads/stand-in'
import { route, validated } from '../../utils/reply'

const query = Joi.object<{ from: number; seed: number; speed: number }>({
  /** Number of readings already received: the stream goes on behind them. */
  from: Joi.number().integer().min(0).max(1_000_000).default(0),
  seed: Joi.number().integer().min(1).max(1_000_000).default(1),
  speed: Joi.number().min(1).max(60).default(1),
})
const tickMs = 250
/**
 * Like any radio link, the stand-in's fails once on the way: a stream that began before this reading stops at
 * it without a word.
 */
const dropsAt = 900

/**
 * A stand-in for a shunt monitor: readings of a made-up vehicle as server-sent events, a few at a time.
 * Whoever was cut off asks again from where it was; the server remembers nothing.
 */
export default route(async (event) => {
  const { from, seed, speed } = validated(query, getQuery(event))
  const { readings } = standInStream(seed)
  const reaches = from < dropsAt ? dropsAt : readings.length
  const stream = createEventStream(event)
  const begun = Date.now()
  let sent = from
  const timer = setInterval(async () => {
    const due = Math.min(
      reaches,
      from + Math.floor(((Date.now() - begun) / 1000) * speed * readingsPerSecond),
    )
    if (due > sent)
      await stream.push(
        JSON.stringify(readings.slice(sent, due).map(({ t, amps, volts }) => [t, amps, volts])),
      )
    sent = Math.max(sent, due)
    if (sent < reaches) return
    clearInterval(timer)
    if (reaches === readings.length) await stream.push({ event: 'end', data: '{}' })
    await stream.close()
  }, tickMs)
  stream.onClosed(() => {
    clearInterval(timer)
  })
  return stream.send()
})
