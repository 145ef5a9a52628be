import Joi from 'joi'
import { craftRow } from '../../answers/craft'
import type { CraftEntry } from '../../repositories/crafts'
import { craftEntryOf, craftKeys, savedCraft } from '../../utils/craft'
import { repositories } from '../../utils/database'
import { jsonBody, made, route } from '../../utils/route'
import { whoSchema } from '../../utils/who'

const body = Joi.object<CraftEntry & { who: string }>({ ...craftKeys, who: whoSchema })

/** Adds a craft that has no job yet. */
export default route(
  { needs: 'installer', body: jsonBody(body, 32 * 1024), answer: made(craftRow), refuses: [404] },
  async (event, { body: asked }) => {
    const { crafts } = await repositories(event, asked.who)
    return savedCraft(await crafts.create(craftEntryOf(asked)))
  },
)
