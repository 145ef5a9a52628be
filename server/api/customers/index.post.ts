import Joi from 'joi'
import { customerRow } from '../../answers/craft'
import type { CustomerEntry } from '../../repositories/customers'
import { repositories } from '../../utils/database'
import { longText, plainText } from '../../utils/plain-text'
import { jsonBody, made, route } from '../../utils/route'
import { whoSchema } from '../../utils/who'

const body = Joi.object<CustomerEntry & { who: string }>({
  name: plainText(200).min(1).required(),
  contact: plainText(200).allow('').default(''),
  notes: longText(5000).allow('').default(''),
  who: whoSchema,
})

/** Adds a customer. */
export default route(
  { needs: 'installer', body: jsonBody(body, 32 * 1024), answer: made(customerRow) },
  async (event, { body: { who, ...entry } }) => {
    const { customers } = await repositories(event, who)
    return customers.create(entry)
  },
)
