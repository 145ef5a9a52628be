import { repositories } from '../../../../utils/database'
import { jobId, noSuchPhoto, photoId, route } from '../../../../utils/reply'

export default route('installer', async (event) => {
  const [job, id] = [jobId(event), photoId(event)]
  const { photos } = await repositories(event)
  if (!(await photos.remove(job, id))) throw noSuchPhoto()
  return { removed: id }
})
