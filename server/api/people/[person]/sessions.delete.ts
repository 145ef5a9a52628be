import { repositories } from '../../../utils/database'
import { noSuchPerson, personId } from '../../../utils/people'
import { route } from '../../../utils/reply'
import { personInShop } from '../../../utils/session'

/** Signs a person out everywhere. */
export default route('owner', async (event) => {
  personInShop(event)
  const id = personId(event)
  const { people } = await repositories(event)
  if (!(await people.has(id))) throw noSuchPerson()
  return { ended: await people.endSessions(id) }
})
