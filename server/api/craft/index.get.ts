import Joi from 'joi'
import { craftPage } from '../../answers/craft'
import { repositories } from '../../utils/database'
import { plainText } from '../../utils/plain-text'
import { json, route } from '../../utils/route'

const query = Joi.object<{ words?: string; customer?: string; after?: string }>({
  words: plainText(200).allow(''),
  customer: Joi.string().guid(),
  after: Joi.string().max(300),
})

/** Craft of the shop by name, a page at a time. */
export default route(
  { needs: 'apprentice', query, answer: json(craftPage) },
  async (event, { query: search }) => {
    const { crafts } = await repositories(event)
    return crafts.list(search)
  },
)
