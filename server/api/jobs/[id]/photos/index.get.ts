import { repositories } from '../../../../utils/database'
import { jobId, noSuchJob } from '../../../../utils/reply'
import { photoRow } from '../../../../answers/jobs'
import { list } from '../../../../answers/shape'
import { json, route } from '../../../../utils/route'

/** The photos of a job, without their pictures. */
export default route({ needs: 'apprentice', answer: json(list(photoRow)), refuses: [404] }, async (event) => {
  const id = jobId(event)
  const { jobs, photos } = await repositories(event)
  if (!(await jobs.read(id))) throw noSuchJob()
  return photos.list(id)
})
