import Joi from 'joi'
import { isShop } from '../../utils/mode'
import { passwordSchema, tokenSchema } from '../../utils/people'
import { Refusal } from '../../utils/refusal'
import { entrance, fromOf, keepSession } from '../../utils/session'
import { signedInAnswer } from '../../answers/people'
import { json, jsonBody, route } from '../../utils/route'

const body = Joi.object<{ token: string; password: string }>({ token: tokenSchema, password: passwordSchema })

/** Sets the password of an invited person and signs them in. */
export default route(
  { needs: 'anyone', body: jsonBody(body), answer: json(signedInAnswer), refuses: [404] },
  async (event, { body: { token, password } }) => {
    const session = isShop() ? await entrance().join(token, password, fromOf(event)) : null
    if (!session) throw new Refusal(404, 'This link was used or is too old. Ask the owner for a new one.')
    keepSession(event, session)
    return { signedIn: true }
  },
)
