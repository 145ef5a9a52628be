import { judgeOfServer } from '../../../../judging/pool'
import { repositories } from '../../../../utils/database'
import { jobId, noSuchJob, route, sendPdf } from '../../../../utils/reply'

/** The summary of a job as it is saved, as a PDF. */
export default route(async (event) => {
  const { jobs, shop } = await repositories()
  const job = await jobs.read(jobId(event))
  if (!job) throw noSuchJob()
  const data = await judgeOfServer().summaryPdf({
    ...(await shop.read()),
    document: job.document,
    madeAt: new Date().toISOString(),
  })
  return sendPdf(event, `summary-${job.document.job.number}`, data)
})
