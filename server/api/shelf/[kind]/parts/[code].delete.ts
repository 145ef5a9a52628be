import Joi from 'joi'
import { repositories } from '../../../../utils/database'
import { Refusal } from '../../../../utils/refusal'
import { noSuchPart, shelfPartOf } from '../../../../utils/shelf'
import { whoSchema } from '../../../../utils/who'
import { retiredPart } from '../../../../answers/shelf'
import { json, route } from '../../../../utils/route'

const query = Joi.object<{ version: number; who: string }>({
  version: Joi.number().integer().min(1).max(2_000_000_000).required(),
  who: whoSchema,
})

/** Takes a part off the shelf, in the version that was seen. Jobs that used it keep its values. */
export default route(
  { needs: 'installer', query, answer: json(retiredPart), refuses: [404, 409] },
  async (event, { query: { version, who } }) => {
    const { kind, code } = shelfPartOf(event)
    const { shelf } = await repositories(event, who)
    const done = await shelf.retire(kind, code, version)
    if (done === 'gone') throw noSuchPart()
    if (done === 'stale') {
      const [theirs] = await shelf.versions(kind, code)
      throw new Refusal(409, `Version ${theirs?.version ?? 0} of ${code} is on the shelf now`, { theirs })
    }
    return { retired: code }
  },
)
