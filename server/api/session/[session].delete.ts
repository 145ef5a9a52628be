import { repositories } from '../../utils/database'
import { idOf } from '../../utils/people'
import { Refusal } from '../../utils/refusal'
import { route } from '../../utils/reply'
import { allowedInShop } from '../../utils/session'

/** Signs the person out of another browser. */
export default route('apprentice', async (event) => {
  const { personId } = await allowedInShop(event, 'apprentice')
  const id = idOf(event, 'session', 'There is no such session')
  const { people } = await repositories(event)
  if ((await people.endSessions(personId, id)) === 0) throw new Refusal(404, 'There is no such session')
  return { ended: id }
})
