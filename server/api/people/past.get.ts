import { repositories } from '../../utils/database'
import { route } from '../../utils/reply'
import { personInShop } from '../../utils/session'

/** Names under which devices made changes before people signed in. */
export default route('owner', async (event) => {
  personInShop(event)
  const { people } = await repositories(event)
  return people.pastNames()
})
