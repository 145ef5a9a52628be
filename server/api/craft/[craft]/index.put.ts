import Joi from 'joi'
import { craftRow } from '../../../answers/craft'
import type { CraftEntry } from '../../../repositories/crafts'
import { craftEntryOf, craftIdOf, craftKeys, savedCraft } from '../../../utils/craft'
import { repositories } from '../../../utils/database'
import { json, jsonBody, route } from '../../../utils/route'
import { versionSchema } from '../../../utils/seen'
import { whoSchema } from '../../../utils/who'

const body = Joi.object<CraftEntry & { version: number; who: string }>({
  ...craftKeys,
  version: versionSchema.min(1).required(),
  who: whoSchema,
})

/** Saves a craft, unless someone saved it since it was read. */
export default route(
  { needs: 'installer', body: jsonBody(body, 32 * 1024), answer: json(craftRow), refuses: [404, 409] },
  async (event, { body: asked }) => {
    const { crafts } = await repositories(event, asked.who)
    return savedCraft(await crafts.update(craftIdOf(event), asked.version, craftEntryOf(asked)))
  },
)
