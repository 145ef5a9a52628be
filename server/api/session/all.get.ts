import { repositories } from '../../utils/database'
import { route } from '../../utils/reply'
import { browserOf } from '../../utils/session'

/** Where the person is signed in. */
export default route('apprentice', async (event) => {
  const { personId, session } = browserOf(event)
  const { people } = await repositories(event)
  return (await people.sessions(personId)).map((row) => ({ ...row, isThis: row.id === session }))
})
