import { createHash, timingSafeEqual } from 'node:crypto'
import Joi from 'joi'
import { isShop } from '../../utils/mode'
import { passwordSchema, personName, tokenSchema } from '../../utils/people'
import { Refusal } from '../../utils/refusal'
import { entrance, fromOf, keepSession } from '../../utils/session'
import { signedInAnswer } from '../../answers/people'
import { json, jsonBody, route } from '../../utils/route'

const body = Joi.object<{ code: string; name: string; password: string }>({
  code: tokenSchema,
  name: personName,
  password: passwordSchema,
})
const digest = (text: string): Buffer => createHash('sha256').update(text).digest()

/** Makes the first owner. Only the terminal of `npm start -- --shop` shows the code. */
export default route(
  { needs: 'anyone', body: jsonBody(body), answer: json(signedInAnswer), refuses: [403, 409] },
  async (event, { body: { code, name, password } }) => {
    const wanted = process.env.SETUP_CODE
    if (!isShop() || !wanted || !timingSafeEqual(digest(code), digest(wanted)))
      throw new Refusal(403, 'This link is not valid. Use the link that the terminal shows.')
    const token = await entrance().begin(name, password, fromOf(event))
    if (!token) throw new Refusal(409, 'This shop has an owner already. Sign in.')
    keepSession(event, token)
    return { signedIn: true }
  },
)
