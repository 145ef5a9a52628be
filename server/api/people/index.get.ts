import { repositories } from '../../utils/database'
import { route } from '../../utils/reply'
import { allowedInShop } from '../../utils/session'

/** The people of the shop. */
export default route('owner', async (event) => {
  await allowedInShop(event, 'owner')
  const { people } = await repositories(event)
  return people.list()
})
