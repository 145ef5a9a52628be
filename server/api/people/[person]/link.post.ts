import { repositories } from '../../../utils/database'
import { noSuchPerson, personId } from '../../../utils/people'
import { route } from '../../../utils/reply'
import { personInShop } from '../../../utils/session'

/** A new link for a person who has lost theirs, or their password. */
export default route('owner', async (event) => {
  personInShop(event)
  const id = personId(event)
  const { people } = await repositories(event)
  const link = await people.linkAgain(id)
  if (!link) throw noSuchPerson()
  return link
})
