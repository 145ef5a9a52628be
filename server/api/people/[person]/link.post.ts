import { repositories } from '../../../utils/database'
import { noSuchPerson, personId } from '../../../utils/people'
import { personInShop } from '../../../utils/session'
import { link } from '../../../answers/people'
import { json, route } from '../../../utils/route'

/** A new link for a person who has lost theirs, or their password. */
export default route({ needs: 'owner', answer: json(link), refuses: [404] }, async (event) => {
  personInShop(event)
  const id = personId(event)
  const { people } = await repositories(event)
  const link = await people.linkAgain(id)
  if (!link) throw noSuchPerson()
  return link
})
