import { repositories } from '../../utils/database'
import { route } from '../../utils/reply'
import { personInShop } from '../../utils/session'

/** The keys of programs. */
export default route('owner', async (event) => {
  personInShop(event)
  return (await repositories(event)).tokens.list()
})
