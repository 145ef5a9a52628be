import { readJob } from '../../../db/jobs'
import { workshopDatabase } from '../../../utils/database'
import { jobId, noSuchJob, route } from '../../../utils/reply'

export default route(async (event) => {
  const id = jobId(event)
  const { sql, workshop } = await workshopDatabase()
  const job = await readJob(sql, workshop, id)
  if (!job) throw noSuchJob()
  return job
})
