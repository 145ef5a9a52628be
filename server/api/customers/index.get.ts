import Joi from 'joi'
import { customerList } from '../../answers/craft'
import { repositories } from '../../utils/database'
import { plainText } from '../../utils/plain-text'
import { json, route } from '../../utils/route'

const query = Joi.object<{ words?: string; after?: string }>({
  words: plainText(200).allow(''),
  after: Joi.string().max(300),
})

/** Customers of the shop by name, a page at a time. */
export default route(
  { needs: 'apprentice', query, answer: json(customerList) },
  async (event, { query: search }) => {
    const { customers } = await repositories(event)
    return customers.list(search)
  },
)
