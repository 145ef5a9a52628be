import { repositories } from '../../../../utils/database'
import { jobId, noSuchJob, route } from '../../../../utils/reply'

/** The sheets issued for a job, newest first. */
export default route('apprentice', async (event) => {
  const id = jobId(event)
  const { jobs, sheets } = await repositories(event)
  if (!(await jobs.read(id))) throw noSuchJob()
  return sheets.list(id)
})
