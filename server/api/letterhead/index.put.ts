import Joi from 'joi'
import type { Letterhead } from '#core/quotation/terms'
import { letterheadAnswer } from '../../answers/shop'
import { repositories } from '../../utils/database'
import { cleanLogo, letterheadSchema } from '../../utils/letterhead'
import { Refusal } from '../../utils/refusal'
import { json, jsonBody, route } from '../../utils/route'
import { versionSchema } from '../../utils/seen'

const body = Joi.object<{ letterhead: Letterhead; version: number }>({
  letterhead: letterheadSchema.required(),
  version: versionSchema.min(1).required(),
})

/** Saves the workshop's text for its quotations. Issued ones stay as they are. */
export default route(
  { needs: 'installer', body: jsonBody(body, 320 * 1024), answer: json(letterheadAnswer), refuses: [409] },
  async (event, { body: { letterhead, version } }) => {
    const { letterheads } = await repositories(event)
    const logo = await cleanLogo(letterhead.logo)
    const saved = await letterheads.save({ ...letterhead, logo }, version)
    if (!saved)
      throw new Refusal(409, 'Someone else has changed the letterhead', { theirs: await letterheads.read() })
    return saved
  },
)
