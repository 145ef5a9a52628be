import { route } from '../../utils/reply'
import { dropSession, entrance, tokenOf } from '../../utils/session'

/** Signs a person out of this browser. */
export default route('apprentice', async (event) => {
  const token = tokenOf(event)
  if (token) await entrance().signOut(token)
  dropSession(event)
  return { signedOut: true }
})
