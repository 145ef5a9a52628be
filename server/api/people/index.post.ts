import Joi from 'joi'
import type { Role } from '../../repositories/actor'
import { repositories } from '../../utils/database'
import { personName, roleSchema } from '../../utils/people'
import { refuseFields } from '../../utils/reply'
import { personInShop } from '../../utils/session'
import { newPerson } from '../../answers/people'
import { jsonBody, made, route } from '../../utils/route'

const body = Joi.object<{ name: string; role: Role }>({ name: personName, role: roleSchema })

/** Invites a person. The link is shown once. */
export default route(
  { needs: 'owner', body: jsonBody(body), answer: made(newPerson), refuses: [404] },
  async (event, { body: { name, role } }) => {
    personInShop(event)
    const { people } = await repositories(event)
    const invited = await people.invite(name, role)
    if (!invited) throw refuseFields([{ path: 'name', message: 'is used by another person of the shop' }])
    return invited
  },
)
