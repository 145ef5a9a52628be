import { repositories } from '../../../utils/database'
import { mustBeDone, personId } from '../../../utils/people'
import { personInShop } from '../../../utils/session'
import { endedOne } from '../../../answers/people'
import { json, route } from '../../../utils/route'

/** Removes a person and ends their sessions. Their changes keep their name. */
export default route({ needs: 'owner', answer: json(endedOne), refuses: [404, 409] }, async (event) => {
  personInShop(event)
  const id = personId(event)
  const { people } = await repositories(event)
  mustBeDone(await people.end(id))
  return { ended: id }
})
