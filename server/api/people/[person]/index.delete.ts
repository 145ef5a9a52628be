import { repositories } from '../../../utils/database'
import { idOf, mustBeDone, noSuchPerson } from '../../../utils/people'
import { route } from '../../../utils/reply'
import { allowedInShop } from '../../../utils/session'

/** Takes a person off the list and ends their sessions. What they did keeps their name. */
export default route('owner', async (event) => {
  await allowedInShop(event, 'owner')
  const id = idOf(event, 'person', noSuchPerson)
  const { people } = await repositories(event)
  mustBeDone(await people.end(id))
  return { ended: id }
})
