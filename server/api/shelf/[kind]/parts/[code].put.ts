import Joi from 'joi'
import { checkShelfPart } from '#core/formats/shelf-csv'
import type { ShelfValues } from '#core/shelf/kinds'
import { repositories } from '../../../../utils/database'
import { plainText } from '../../../../utils/plain-text'
import { Refusal } from '../../../../utils/refusal'
import { refuseFields } from '../../../../utils/reply'
import { shelfPartOf } from '../../../../utils/shelf'
import { whoSchema } from '../../../../utils/who'
import { partVersion } from '../../../../answers/shelf'
import { json, jsonBody, route } from '../../../../utils/route'

const body = Joi.object<{ version: number; who: string; name: string; maker: string; values: ShelfValues }>({
  version: Joi.number().integer().min(0).max(2_000_000_000).required(),
  who: whoSchema,
  name: plainText(120).required(),
  maker: plainText(120).allow('').required(),
  values: Joi.object().unknown().required(),
})

/** Saves a part as a new version over the one it was changed from; 0 for a part that is new. */
export default route(
  { needs: 'installer', body: jsonBody(body, 64 * 1024), answer: json(partVersion), refuses: [404, 409] },
  async (event, { body: { version, who, name, maker, values } }) => {
    const { kind, code } = shelfPartOf(event)
    const problems = checkShelfPart(kind, { code, name, maker, values })
    if (problems.length > 0)
      throw refuseFields(problems.map(({ column, reason }) => ({ path: column, message: reason })))
    const { shelf } = await repositories(event, who)
    const saved = await shelf.save(kind, version, { code, name, maker, values })
    if (!saved) {
      const [theirs] = await shelf.versions(kind, code)
      throw new Refusal(
        409,
        version === 0
          ? `${code} stands on the shelf already`
          : `Version ${theirs?.version ?? 0} of ${code} is on the shelf now`,
        { theirs },
      )
    }
    return saved
  },
)
