import Joi from 'joi'
import type { Role } from '../../../repositories/actor'
import { repositories } from '../../../utils/database'
import { mustBeDone, personId, roleSchema } from '../../../utils/people'
import { personInShop } from '../../../utils/session'
import { changedPerson } from '../../../answers/people'
import { json, jsonBody, route } from '../../../utils/route'

const body = Joi.object<{ role: Role }>({ role: roleSchema })

/** Changes the role of a person. */
export default route(
  { needs: 'owner', body: jsonBody(body), answer: json(changedPerson), refuses: [404, 409] },
  async (event, { body: { role } }) => {
    personInShop(event)
    const id = personId(event)
    const { people } = await repositories(event)
    mustBeDone(await people.setRole(id, role))
    return { id, role }
  },
)
