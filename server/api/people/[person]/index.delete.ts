import { repositories } from '../../../utils/database'
import { mustBeDone, personId } from '../../../utils/people'
import { route } from '../../../utils/reply'
import { personInShop } from '../../../utils/session'

/** Takes a person off the list and ends their sessions. What they did keeps their name. */
export default route('owner', async (event) => {
  personInShop(event)
  const id = personId(event)
  const { people } = await repositories(event)
  mustBeDone(await people.end(id))
  return { ended: id }
})
