import Joi from 'joi'
import type { Role } from '../../../repositories/actor'
import { readJson } from '../../../utils/body'
import { repositories } from '../../../utils/database'
import { idOf, mustBeDone, noSuchPerson, roleSchema } from '../../../utils/people'
import { route, validated } from '../../../utils/reply'
import { allowedInShop } from '../../../utils/session'

const body = Joi.object<{ role: Role }>({ role: roleSchema })

/** Changes the role of a person. */
export default route('owner', async (event) => {
  await allowedInShop(event, 'owner')
  const id = idOf(event, 'person', noSuchPerson)
  const { role } = validated(body, await readJson(event, 4096))
  const { people } = await repositories(event)
  mustBeDone(await people.setRole(id, role))
  return { id, role }
})
