import { repositories } from '../../../utils/database'
import { noSuchPerson, personId } from '../../../utils/people'
import { personInShop } from '../../../utils/session'
import { endedSome } from '../../../answers/people'
import { json, route } from '../../../utils/route'

/** Signs a person out everywhere. */
export default route({ needs: 'owner', answer: json(endedSome), refuses: [404] }, async (event) => {
  personInShop(event)
  const id = personId(event)
  const { people } = await repositories(event)
  if (!(await people.has(id))) throw noSuchPerson()
  return { ended: await people.endSessions(id) }
})
