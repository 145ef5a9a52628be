import { setResponseHeaders } from 'h3'
import { repositories } from '../../../../utils/database'
import { jobId, noSuchPhoto, photoId, route } from '../../../../utils/reply'

/** The picture itself. It never changes under its address. */
export default route('apprentice', async (event) => {
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
