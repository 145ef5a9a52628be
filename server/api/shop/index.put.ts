import Joi from 'joi'
import { inWords, rulesSchema } from '#core/formats/job-schema'
import type { ShopSettings } from '../../repositories/shop'
import { repositories } from '../../utils/database'
import { plainText } from '../../utils/plain-text'
import { seenSchema } from '../../utils/seen'
import { Refusal } from '../../utils/refusal'
import { savedSettings } from '../../answers/shop'
import { json, jsonBody, route } from '../../utils/route'

const body = Joi.object<ShopSettings>({
  name: plainText(120).min(1).required(),
  rules: rulesSchema.required(),
  units: Joi.object({
    system: Joi.valid('metric', 'imperial').required(),
    currency: Joi.string()
      .trim()
      .pattern(/^[^\p{Cc}\p{Cs}\d]{1,4}$/u, 'sign')
      .required(),
  }).required(),
  ...seenSchema,
}).prefs(inWords)

/** Saves the shop's settings; every open job is checked again a moment later. */
export default route(
  { needs: 'installer', body: jsonBody(body, 256 * 1024), answer: json(savedSettings), refuses: [409] },
  async (event, { body: wanted }) => {
    const { shop } = await repositories(event)
    const saved = await shop.save(wanted)
    if (!saved)
      throw new Refusal(409, 'Someone else has changed the shop settings', {
        theirs: await shop.read(),
        yours: wanted,
      })
    return { shop: saved, waiting: await shop.waiting() }
  },
)
