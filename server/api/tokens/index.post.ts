import Joi from 'joi'
import { newKey } from '../../answers/people'
import type { NewToken } from '../../repositories/tokens'
import { repositories } from '../../utils/database'
import { personName, roleSchema } from '../../utils/people'
import { jsonBody, made, route } from '../../utils/route'
import { personInShop } from '../../utils/session'

const body = Joi.object<NewToken>({
  name: personName,
  role: roleSchema,
  days: Joi.number().integer().min(1).max(730).required(),
})

/** Makes a key for a program. The key is shown once. */
export default route(
  { needs: 'owner', body: jsonBody(body), answer: made(newKey), refuses: [404] },
  async (event, { body: key }) => {
    personInShop(event)
    const { tokens } = await repositories(event)
    return tokens.make(key)
  },
)
