import { setResponseStatus } from 'h3'
import Joi from 'joi'
import type { Role } from '../../repositories/actor'
import { readJson } from '../../utils/body'
import { repositories } from '../../utils/database'
import { personName, roleSchema } from '../../utils/people'
import { refuseFields, route, validated } from '../../utils/reply'
import { personInShop } from '../../utils/session'

const body = Joi.object<{ name: string; role: Role }>({ name: personName, role: roleSchema })

/** Invites a person. The link is told once. */
export default route('owner', async (event) => {
  personInShop(event)
  const { name, role } = validated(body, await readJson(event, 4096))
  const { people } = await repositories(event)
  const invited = await people.invite(name, role)
  if (!invited) throw refuseFields([{ path: 'name', message: 'is used by another person of the shop' }])
  setResponseStatus(event, 201)
  return invited
})
