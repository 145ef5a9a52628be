import { isShop } from '../../utils/mode'
import { route } from '../../utils/reply'
import { entrance, signedIn } from '../../utils/session'

/** Whether people sign in here, who is signed in, and whether the first owner is still to come. */
export default route('anyone', async (event) => {
  if (!isShop()) return { isShop: false, person: null, needsOwner: false }
  const person = await signedIn(event)
  return {
    isShop: true,
    person: person && { id: person.browser?.personId ?? null, name: person.person, role: person.role },
    needsOwner: !person && !(await entrance().hasPeople()),
  }
})
