import { getRouterParam } from 'h3'
import { removedPasskey } from '../../../answers/people'
import { repositories } from '../../../utils/database'
import { Refusal } from '../../../utils/refusal'
import { json, route } from '../../../utils/route'
import { browserOf } from '../../../utils/session'

/** Removes a passkey of the person. */
export default route(
  { needs: 'apprentice', answer: json(removedPasskey), refuses: [403, 404] },
  async (event) => {
    const { personId } = browserOf(event)
    const id = getRouterParam(event, 'passkey') ?? ''
    if (!(await (await repositories(event)).passkeys.remove(personId, id)))
      throw new Refusal(404, 'There is no such passkey')
    return { removed: id }
  },
)
