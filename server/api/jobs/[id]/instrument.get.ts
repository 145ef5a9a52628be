import Joi from 'joi'
import { judgeOfServer } from '../../../judging/pool'
import { repositories } from '../../../utils/database'
import { sendReadings } from '../../../utils/readings-stream'
import { Refusal } from '../../../utils/refusal'
import { jobId, noSuchJob } from '../../../utils/reply'
import { media, route } from '../../../utils/route'

const query = Joi.object<{ test: string; from: number; seed: number; hidden: boolean; speed: number }>({
  test: Joi.string().max(60).required(),
  /** Number of readings already received: the stream goes on behind them. */
  from: Joi.number().integer().min(0).max(10_000).default(0),
  seed: Joi.number().integer().min(1).max(1_000_000).default(1),
  /** Whether the stand-in hides a fault. */
  hidden: Joi.boolean().default(false),
  speed: Joi.number().min(1).max(600).default(1),
})
const dropsAt = 60

/** A stand-in for meter, clamp, monitor and probe on the job’s own network, as server-sent events. */
export default route(
  { needs: 'apprentice', query, answer: media('text/event-stream'), refuses: [404] },
  async (event, { query: { from, speed, ...held } }) => {
    const id = jobId(event)
    const { jobs, shop } = await repositories(event)
    const job = await jobs.read(id)
    if (!job) throw noSuchJob()
    const shown = await judgeOfServer().standIn({ ...(await shop.read()), document: job.document, ...held })
    if (!shown) throw new Refusal(404, 'This job has no such test')
    const beginsAt = shown[from]?.t ?? 0
    const dueAfter = (seconds: number): number =>
      shown.filter(({ t }) => t <= beginsAt + seconds * speed).length
    return sendReadings(event, { readings: shown.map(({ t, value }) => [t, value]), from, dueAfter, dropsAt })
  },
)
