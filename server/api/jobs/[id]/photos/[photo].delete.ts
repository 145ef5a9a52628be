import { repositories } from '../../../../utils/database'
import { jobId, noSuchPhoto, photoId } from '../../../../utils/reply'
import { removedPhoto } from '../../../../answers/jobs'
import { json, route } from '../../../../utils/route'

/** Removes a photo. */
export default route({ needs: 'installer', answer: json(removedPhoto), refuses: [404] }, async (event) => {
  const [job, id] = [jobId(event), photoId(event)]
  const { photos } = await repositories(event)
  if (!(await photos.remove(job, id))) throw noSuchPhoto()
  return { removed: id }
})
