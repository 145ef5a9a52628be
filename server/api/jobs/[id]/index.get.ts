import { repositories } from '../../../utils/database'
import { jobId, noSuchJob, route } from '../../../utils/reply'

export default route('apprentice', async (event) => {
  const id = jobId(event)
  const { jobs } = await repositories(event)
  const job = await jobs.read(id)
  if (!job) throw noSuchJob()
  return job
})
