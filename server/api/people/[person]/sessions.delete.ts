import { repositories } from '../../../utils/database'
import { idOf, noSuchPerson } from '../../../utils/people'
import { Refusal } from '../../../utils/refusal'
import { route } from '../../../utils/reply'
import { allowedInShop } from '../../../utils/session'

/** Signs a person out everywhere. */
export default route('owner', async (event) => {
  await allowedInShop(event, 'owner')
  const id = idOf(event, 'person', noSuchPerson)
  const { people } = await repositories(event)
  if (!(await people.has(id))) throw new Refusal(404, noSuchPerson)
  return { ended: await people.endSessions(id) }
})
