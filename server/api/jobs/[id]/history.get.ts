import { repositories } from '../../../utils/database'
import { jobId, noSuchJob, route } from '../../../utils/reply'

export default route(async (event) => {
  const id = jobId(event)
  const { jobs } = await repositories()
  if (!(await jobs.read(id))) throw noSuchJob()
  return jobs.history(id)
})
