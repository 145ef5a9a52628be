import Joi from 'joi'
import { customerRow } from '../../../answers/craft'
import type { CustomerEntry } from '../../../repositories/customers'
import { customerIdOf, noSuchCustomer } from '../../../utils/craft'
import { repositories } from '../../../utils/database'
import { longText, plainText } from '../../../utils/plain-text'
import { json, jsonBody, route } from '../../../utils/route'
import { whoSchema } from '../../../utils/who'

const body = Joi.object<CustomerEntry & { who: string }>({
  name: plainText(200).min(1).required(),
  contact: plainText(200).allow('').default(''),
  notes: longText(5000).allow('').default(''),
  who: whoSchema,
})

/** Saves a customer. Jobs and papers keep the name that they were made with. */
export default route(
  { needs: 'installer', body: jsonBody(body, 32 * 1024), answer: json(customerRow), refuses: [404] },
  async (event, { body: { who, ...entry } }) => {
    const { customers } = await repositories(event, who)
    const saved = await customers.update(customerIdOf(event), entry)
    if (!saved) throw noSuchCustomer()
    return saved
  },
)
