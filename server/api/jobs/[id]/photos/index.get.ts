import { repositories } from '../../../../utils/database'
import { jobId, noSuchJob, route } from '../../../../utils/reply'

/** The photos of a job, without their pictures. */
export default route('apprentice', async (event) => {
  const id = jobId(event)
  const { jobs, photos } = await repositories(event)
  if (!(await jobs.read(id))) throw noSuchJob()
  return photos.list(id)
})
