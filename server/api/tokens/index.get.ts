import { repositories } from '../../utils/database'
import { personInShop } from '../../utils/session'
import { keyList } from '../../answers/people'
import { json, route } from '../../utils/route'

/** The keys of programs. */
export default route({ needs: 'owner', answer: json(keyList), refuses: [404] }, async (event) => {
  personInShop(event)
  return (await repositories(event)).tokens.list()
})
