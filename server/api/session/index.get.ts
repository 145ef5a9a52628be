import { isShop } from '../../utils/mode'
import { entrance, signedIn } from '../../utils/session'
import { sessionState } from '../../answers/people'
import { json, route } from '../../utils/route'

/** Whether people sign in here, who is signed in, and whether the first owner is still to come. */
export default route({ needs: 'anyone', answer: json(sessionState) }, async (event) => {
  if (!isShop()) return { isShop: false, person: null, needsOwner: false }
  const person = await signedIn(event)
  return {
    isShop: true,
    person: person && { id: person.browser?.personId ?? null, name: person.person, role: person.role },
    needsOwner: !person && !(await entrance().hasPeople()),
  }
})
