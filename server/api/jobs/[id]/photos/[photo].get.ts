import { setResponseHeaders } from 'h3'
import { repositories } from '../../../../utils/database'
import { jobId, noSuchPhoto, photoId } from '../../../../utils/reply'
import { media, route } from '../../../../utils/route'

/** The picture itself. It never changes under its address. */
export default route({ needs: 'apprentice', answer: media('image/*'), refuses: [404] }, async (event) => {
  const [job, id] = [jobId(event), photoId(event)]
  const { photos } = await repositories(event)
  const photo = await photos.read(job, id)
  if (!photo) throw noSuchPhoto()
  setResponseHeaders(event, {
    'content-type': photo.mime,
    'cache-control': 'private, max-age=31536000, immutable',
  })
  return photo.data
})
