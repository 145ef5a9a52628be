import Joi from 'joi'
import type { Role } from '../../../repositories/actor'
import { readJson } from '../../../utils/body'
import { repositories } from '../../../utils/database'
import { mustBeDone, personId, roleSchema } from '../../../utils/people'
import { route, validated } from '../../../utils/reply'
import { personInShop } from '../../../utils/session'

const body = Joi.object<{ role: Role }>({ role: roleSchema })

/** Changes the role of a person. */
export default route('owner', async (event) => {
  personInShop(event)
  const id = personId(event)
  const { role } = validated(body, await readJson(event, 4096))
  const { people } = await repositories(event)
  mustBeDone(await people.setRole(id, role))
  return { id, role }
})
