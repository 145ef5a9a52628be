import { repositories } from '../../utils/database'
import { personInShop } from '../../utils/session'
import { pastNames } from '../../answers/people'
import { json, route } from '../../utils/route'

/** Names under which devices made changes before people signed in. */
export default route({ needs: 'owner', answer: json(pastNames), refuses: [404] }, async (event) => {
  personInShop(event)
  const { people } = await repositories(event)
  return people.pastNames()
})
