import Joi from 'joi'
import { readJson } from '../../utils/body'
import { isShop } from '../../utils/mode'
import { Refusal } from '../../utils/refusal'
import { route, validated } from '../../utils/reply'
import { entrance, fromOf, keepSession } from '../../utils/session'

const body = Joi.object<{ name: string; password: string }>({
  name: Joi.string().max(100).required(),
  password: Joi.string().max(200).required(),
})

/** Signs a person in. */
export default route('anyone', async (event) => {
  const { name, password } = validated(body, await readJson(event, 4096))
  if (!isShop()) throw new Refusal(404, 'Nobody signs in on one machine')
  const done = await entrance().signIn(name.trim(), password, fromOf(event))
  if (done.kind === 'wait')
    throw new Refusal(429, `Too many wrong passwords. Try again in ${done.minutes} min.`)
  if (done.kind === 'wrong') throw new Refusal(401, 'The name or the password is wrong.')
  keepSession(event, done.token)
  return { signedIn: true }
})
