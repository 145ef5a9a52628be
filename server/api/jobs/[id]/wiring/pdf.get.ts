import { judgeOfServer } from '../../../../judging/pool'
import { keptPaper } from '../../../../papers/kept'
import { repositories } from '../../../../utils/database'
import { jobId, noSuchJob, route, sendPdf } from '../../../../utils/reply'

/** The plan of the wiring of a job as it is saved, as a PDF. */
export default route(async (event) => {
  const { jobs, shop } = await repositories()
  const job = await jobs.read(jobId(event))
  if (!job) throw noSuchJob()
  const settings = await shop.read()
  // By the day it bears: the same job and rules give the same paper all day.
  const madeAt = `${new Date().toISOString().slice(0, 10)}T00:00:00.000Z`
  const data = await keptPaper(`wiring ${job.id} ${job.version} ${settings.version} ${madeAt}`, () =>
    judgeOfServer().wiringPdf({ ...settings, document: job.document, madeAt }),
  )
  return sendPdf(event, `wiring-${job.document.job.number}`, data)
})
