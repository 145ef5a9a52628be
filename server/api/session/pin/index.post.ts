import Joi from 'joi'
import { signedInAnswer } from '../../../answers/people'
import { isShop } from '../../../utils/mode'
import { Refusal } from '../../../utils/refusal'
import { json, jsonBody, route } from '../../../utils/route'
import { browserTokenOf, entrance, fromOf, keepSession, pinDoor, tokenOf } from '../../../utils/session'

const body = Joi.object<{ person: string; pin: string }>({
  person: Joi.string().guid().required(),
  // Any words: a wrong PIN counts as a try, whatever it looks like.
  pin: Joi.string().max(100).required(),
})

/** Signs a person in to this browser by PIN, and signs out the person who was signed in before. */
export default route(
  { needs: 'anyone', body: jsonBody(body), answer: json(signedInAnswer), refuses: [401, 403] },
  async (event, { body: { person, pin } }) => {
    const browser = isShop() ? browserTokenOf(event) : null
    if (!browser) throw new Refusal(403, 'Nobody has a PIN on this device. Sign in with your password.')
    const done = await pinDoor().enter(browser, person, pin, fromOf(event))
    if (done.kind === 'gone')
      throw new Refusal(403, 'There is no such PIN on this device any more. Sign in with your password.')
    if (done.kind === 'wrong')
      throw new Refusal(
        401,
        `The PIN is wrong. ${done.left} ${done.left === 1 ? 'try is' : 'tries are'} left.`,
      )
    const before = tokenOf(event)
    if (before) await entrance().signOut(before)
    keepSession(event, done.token)
    return { signedIn: true }
  },
)
