import { repositories } from '../../utils/database'
import { personInShop } from '../../utils/session'
import { peopleList } from '../../answers/people'
import { json, route } from '../../utils/route'

/** The people of the shop. */
export default route({ needs: 'owner', answer: json(peopleList), refuses: [404] }, async (event) => {
  personInShop(event)
  const { people } = await repositories(event)
  return people.list()
})
