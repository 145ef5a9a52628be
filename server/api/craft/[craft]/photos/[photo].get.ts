import { setResponseHeaders } from 'h3'
import { craftIdOf } from '../../../../utils/craft'
import { repositories } from '../../../../utils/database'
import { noSuchPhoto, photoId } from '../../../../utils/reply'
import { media, route } from '../../../../utils/route'

/** The picture of a photograph in the logbook of a craft. It never changes under its address. */
export default route({ needs: 'apprentice', answer: media('image/*'), refuses: [404] }, async (event) => {
  const [craft, id] = [craftIdOf(event), photoId(event)]
  const { craftPhotos } = await repositories(event)
  const photo = await craftPhotos.read(craft, id)
  if (!photo) throw noSuchPhoto()
  setResponseHeaders(event, {
    'content-type': photo.mime,
    'cache-control': 'private, max-age=31536000, immutable',
  })
  return photo.data
})
