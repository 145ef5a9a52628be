import { repositories } from '../../utils/database'
import { noSuchToken } from '../../utils/people'
import { idOf, route } from '../../utils/reply'
import { personInShop } from '../../utils/session'

/** Ends a key of a program. */
export default route('owner', async (event) => {
  personInShop(event)
  const id = idOf(event, 'token', noSuchToken)
  if (!(await (await repositories(event)).tokens.revoke(id))) throw noSuchToken()
  return { ended: id }
})
