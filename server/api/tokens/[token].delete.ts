import { repositories } from '../../utils/database'
import { noSuchToken } from '../../utils/people'
import { idOf } from '../../utils/reply'
import { personInShop } from '../../utils/session'
import { endedOne } from '../../answers/people'
import { json, route } from '../../utils/route'

/** Ends a key of a program. */
export default route({ needs: 'owner', answer: json(endedOne), refuses: [404] }, async (event) => {
  personInShop(event)
  const id = idOf(event, 'token', noSuchToken)
  if (!(await (await repositories(event)).tokens.revoke(id))) throw noSuchToken()
  return { ended: id }
})
