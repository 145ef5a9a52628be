import { setResponseStatus } from 'h3'
import Joi from 'joi'
import type { NewToken } from '../../repositories/tokens'
import { readJson } from '../../utils/body'
import { repositories } from '../../utils/database'
import { personName, roleSchema } from '../../utils/people'
import { route, validated } from '../../utils/reply'
import { personInShop } from '../../utils/session'

const body = Joi.object<NewToken>({
  name: personName,
  role: roleSchema,
  days: Joi.number().integer().min(1).max(730).required(),
})

/** Makes a key for a program. The key is told once. */
export default route('owner', async (event) => {
  personInShop(event)
  const { tokens } = await repositories(event)
  setResponseStatus(event, 201)
  return tokens.make(validated(body, await readJson(event, 4096)))
})
