import Joi from 'joi'
import { addedEntries } from '../../../../answers/craft'
import { pictureTypes, sentPicture } from '../../../../pictures/sent'
import { craftIdOf, noSuchCraft } from '../../../../utils/craft'
import { repositories } from '../../../../utils/database'
import { plainText } from '../../../../utils/plain-text'
import { Refusal } from '../../../../utils/refusal'
import { made, route } from '../../../../utils/route'
import { whoSchema } from '../../../../utils/who'

const query = Joi.object<{ who: string; words: string; at?: string }>({
  who: whoSchema,
  words: plainText(500).allow('').default('').description('What the photograph shows.'),
  at: Joi.string().isoDate().description('When it was taken.'),
})

/** A photograph for the logbook of a craft: the bytes of a picture, stored without its metadata. */
export default route(
  { needs: 'apprentice', query, takes: pictureTypes, answer: made(addedEntries), refuses: [404] },
  async (event, { query: { who, words, at } }) => {
    const id = craftIdOf(event)
    const { crafts, craftPhotos } = await repositories(event, who)
    if (!(await crafts.read(id))) throw noSuchCraft()
    const added = await craftPhotos.add(id, await sentPicture(event), { words, at })
    if (added !== 'added') throw new Refusal(422, added.refused)
    return { added: 1 }
  },
)
