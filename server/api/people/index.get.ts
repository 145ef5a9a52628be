import { repositories } from '../../utils/database'
import { route } from '../../utils/reply'
import { personInShop } from '../../utils/session'

/** The people of the shop. */
export default route('owner', async (event) => {
  personInShop(event)
  const { people } = await repositories(event)
  return people.list()
})
