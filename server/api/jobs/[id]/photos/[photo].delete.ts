import { repositories } from '../../../../utils/database'
import { jobId, noSuchPhoto, photoId, route } from '../../../../utils/reply'

export default route(async (event) => {
  const [job, id] = [jobId(event), photoId(event)]
  const { photos } = await repositories()
  if (!(await photos.remove(job, id))) throw noSuchPhoto()
  return { removed: id }
})
