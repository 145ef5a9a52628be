import { answerPicture } from '../../../../pictures/answer'
import { repositories } from '../../../../utils/database'
import { jobId, photoId } from '../../../../utils/reply'
import { media, route } from '../../../../utils/route'

/** The picture itself. It never changes under its address. */
export default route({ needs: 'apprentice', answer: media('image/*'), refuses: [404] }, async (event) => {
  const [job, id] = [jobId(event), photoId(event)]
  const { photos } = await repositories(event)
  return answerPicture(event, await photos.read(job, id))
})
