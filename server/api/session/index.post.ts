import Joi from 'joi'
import { isShop } from '../../utils/mode'
import { Refusal } from '../../utils/refusal'
import { entrance, fromOf, keepSession } from '../../utils/session'
import { signedInAnswer } from '../../answers/people'
import { json, jsonBody, route } from '../../utils/route'

const body = Joi.object<{ name: string; password: string }>({
  name: Joi.string().max(100).required(),
  password: Joi.string().max(200).required(),
})

/** Signs a person in. */
export default route(
  { needs: 'anyone', body: jsonBody(body), answer: json(signedInAnswer), refuses: [401, 404, 429] },
  async (event, { body: { name, password } }) => {
    if (!isShop()) throw new Refusal(404, 'Nobody signs in on one machine')
    const done = await entrance().signIn(name.trim(), password, fromOf(event))
    if (done.kind === 'wait')
      throw new Refusal(429, `Too many wrong passwords. Try again in ${done.minutes} min.`)
    if (done.kind === 'wrong') throw new Refusal(401, 'The name or the password is wrong.')
    keepSession(event, done.token)
    return { signedIn: true }
  },
)
