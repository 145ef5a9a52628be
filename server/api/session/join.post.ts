import Joi from 'joi'
import { readJson } from '../../utils/body'
import { isShop } from '../../utils/mode'
import { passwordSchema, tokenSchema } from '../../utils/people'
import { Refusal } from '../../utils/refusal'
import { route, validated } from '../../utils/reply'
import { entrance, fromOf, keepSession } from '../../utils/session'

const body = Joi.object<{ token: string; password: string }>({ token: tokenSchema, password: passwordSchema })

/** Sets the password of an invited person and signs them in. */
export default route('anyone', async (event) => {
  const { token, password } = validated(body, await readJson(event, 4096))
  const session = isShop() ? await entrance().join(token, password, fromOf(event)) : null
  if (!session) throw new Refusal(404, 'This link was used or is too old. Ask the owner for a new one.')
  keepSession(event, session)
  return { signedIn: true }
})
