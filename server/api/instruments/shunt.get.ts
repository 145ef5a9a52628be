import Joi from 'joi'
import { readingsPerSecond, standInStream } from '#core/loads/stand-in'
import { sendReadings } from '../../utils/readings-stream'
import { media, route } from '../../utils/route'

const query = Joi.object<{ from: number; seed: number; speed: number }>({
  /** Number of readings already received: the stream goes on behind them. */
  from: Joi.number().integer().min(0).max(1_000_000).default(0),
  seed: Joi.number().integer().min(1).max(1_000_000).default(1),
  speed: Joi.number().min(1).max(60).default(1),
})
const dropsAt = 900

/** A stand-in for a shunt monitor: readings of a made-up vehicle as server-sent events, a few at a time. */
export default route(
  { needs: 'apprentice', query, answer: media('text/event-stream') },
  (event, { query: { from, seed, speed } }) => {
    const readings = standInStream(seed).readings.map(({ t, amps, volts }) => [t, amps, volts])
    const dueAfter = (seconds: number): number => from + Math.floor(seconds * speed * readingsPerSecond)
    return sendReadings(event, { readings, from, dueAfter, dropsAt })
  },
)
