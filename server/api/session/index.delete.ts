import { dropSession, entrance, tokenOf } from '../../utils/session'
import { signedOutAnswer } from '../../answers/people'
import { json, route } from '../../utils/route'

/** Signs a person out of this browser. */
export default route({ needs: 'apprentice', answer: json(signedOutAnswer) }, async (event) => {
  const token = tokenOf(event)
  if (token) await entrance().signOut(token)
  dropSession(event)
  return { signedOut: true }
})
