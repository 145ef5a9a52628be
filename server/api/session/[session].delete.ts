import { repositories } from '../../utils/database'
import { noSuchSession } from '../../utils/people'
import { idOf, route } from '../../utils/reply'
import { browserOf } from '../../utils/session'

/** Signs the person out of another browser. */
export default route('apprentice', async (event) => {
  const { personId } = browserOf(event)
  const id = idOf(event, 'session', noSuchSession)
  const { people } = await repositories(event)
  if ((await people.endSessions(personId, id)) === 0) throw noSuchSession()
  return { ended: id }
})
