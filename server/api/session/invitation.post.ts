import Joi from 'joi'
import { tokenSchema } from '../../utils/people'
import { Refusal } from '../../utils/refusal'
import { entrance } from '../../utils/session'
import { invitedPerson } from '../../answers/people'
import { json, jsonBody, route } from '../../utils/route'

const body = Joi.object<{ token: string }>({ token: tokenSchema })

/** Who an invitation is for. The secret comes in the body, so that no log holds it. */
export default route(
  { needs: 'anyone', body: jsonBody(body), answer: json(invitedPerson), refuses: [404] },
  async (event, { body: { token } }) => {
    const invited = await entrance().invited(token)
    if (!invited) throw new Refusal(404, 'This link was used or is too old. Ask the owner for a new one.')
    return invited
  },
)
