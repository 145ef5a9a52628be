import { repositories } from '../../../utils/database'
import { idOf, noSuchPerson } from '../../../utils/people'
import { Refusal } from '../../../utils/refusal'
import { route } from '../../../utils/reply'
import { allowedInShop } from '../../../utils/session'

/** A new link for a person who has lost theirs, or their password. */
export default route('owner', async (event) => {
  await allowedInShop(event, 'owner')
  const id = idOf(event, 'person', noSuchPerson)
  const { people } = await repositories(event)
  const link = await people.linkAgain(id)
  if (!link) throw new Refusal(404, noSuchPerson)
  return link
})
