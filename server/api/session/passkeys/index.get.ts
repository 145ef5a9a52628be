import { passkeyList } from '../../../answers/people'
import { repositories } from '../../../utils/database'
import { json, route } from '../../../utils/route'
import { browserOf } from '../../../utils/session'

/** The passkeys of the person. */
export default route(
  { needs: 'apprentice', answer: json(passkeyList), refuses: [403, 404] },
  async (event) => {
    const { personId } = browserOf(event)
    return (await repositories(event)).passkeys.list(personId)
  },
)
