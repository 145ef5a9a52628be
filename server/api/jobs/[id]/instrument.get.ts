import { createEventStream, getQuery } from 'h3'
import Joi from 'joi'
import { judgeOfServer } from '../../../judging/pool'
import { repositories } from '../../../utils/database'
import { jobId, noSuchJob, Refusal, route, validated } from '../../../utils/reply'

const query = Joi.object<{ test: string; from: number; seed: number; hidden: boolean; speed: number }>({
  test: Joi.string().max(60).required(),
  /** Number of readings already received: the stream goes on behind them. */
  from: Joi.number().integer().min(0).max(10_000).default(0),
  seed: Joi.number().integer().min(1).max(1_000_000).default(1),
  /** Whether the stand-in hides a fault. */
  hidden: Joi.boolean().default(false),
  speed: Joi.number().min(1).max(600).default(1),
})
const tickMs = 200
/** Like any radio link, the stand-in’s fails once on the way of a long reading: it stops there without a word. */
const dropsAt = 60

/**
 * A stand-in for meter, clamp, monitor and probe on the job’s own network, as server-sent events. Whoever was cut off
 * asks again from where it was; the server remembers nothing.
 */
export default route(async (event) => {
  const id = jobId(event)
  const { from, speed, ...held } = validated(query, getQuery(event))
  const { jobs, shop } = await repositories()
  const job = await jobs.read(id)
  if (!job) throw noSuchJob()
  const readings = await judgeOfServer().standIn({ ...(await shop.read()), document: job.document, ...held })
  if (!readings) throw new Refusal(404, 'This job has no such test')
  const reaches = from < dropsAt && readings.length > dropsAt ? dropsAt : readings.length
  const stream = createEventStream(event)
  const begun = Date.now()
  const beginsAt = readings[from]?.t ?? 0
  let sent = from
  const timer = setInterval(async () => {
    const reached = beginsAt + ((Date.now() - begun) / 1000) * speed
    let due = sent
    while (due < reaches && readings[due]!.t <= reached) due++
    if (due > sent)
      await stream.push(JSON.stringify(readings.slice(sent, due).map(({ t, value }) => [t, value])))
    sent = due
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
