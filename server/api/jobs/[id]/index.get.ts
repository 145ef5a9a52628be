import { repositories } from '../../../utils/database'
import { jobId, noSuchJob, route } from '../../../utils/reply'

export default route(async (event) => {
  const id = jobId(event)
  const { jobs } = await repositories()
  const job = await jobs.read(id)
  if (!job) throw noSuchJob()
  return job
})
