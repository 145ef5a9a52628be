import { answerPicture } from '../../../../pictures/answer'
import { craftIdOf } from '../../../../utils/craft'
import { repositories } from '../../../../utils/database'
import { photoId } from '../../../../utils/reply'
import { media, route } from '../../../../utils/route'

/** The picture of a photograph in the logbook of a craft. It never changes under its address. */
export default route({ needs: 'apprentice', answer: media('image/*'), refuses: [404] }, async (event) => {
  const [craft, id] = [craftIdOf(event), photoId(event)]
  const { craftPhotos } = await repositories(event)
  return answerPicture(event, await craftPhotos.read(craft, id))
})
