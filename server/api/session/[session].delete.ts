import { repositories } from '../../utils/database'
import { noSuchSession } from '../../utils/people'
import { idOf } from '../../utils/reply'
import { browserOf } from '../../utils/session'
import { endedOne } from '../../answers/people'
import { json, route } from '../../utils/route'

/** Signs the person out of another browser. */
export default route({ needs: 'apprentice', answer: json(endedOne), refuses: [403, 404] }, async (event) => {
  const { personId } = browserOf(event)
  const id = idOf(event, 'session', noSuchSession)
  const { people } = await repositories(event)
  if ((await people.endSessions(personId, id)) === 0) throw noSuchSession()
  return { ended: id }
})
