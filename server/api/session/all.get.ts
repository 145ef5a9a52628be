import { repositories } from '../../utils/database'
import { browserOf } from '../../utils/session'
import { ownSessions } from '../../answers/people'
import { json, route } from '../../utils/route'

/** Where the person is signed in. */
export default route(
  { needs: 'apprentice', answer: json(ownSessions), refuses: [403, 404] },
  async (event) => {
    const { personId, session } = browserOf(event)
    const { people } = await repositories(event)
    return (await people.sessions(personId)).map((row) => ({ ...row, isThis: row.id === session }))
  },
)
