import Joi from 'joi'
import { inWords, rulesSchema } from '#core/formats/job-schema'
import type { RuleOverrides } from '#core/rules/rules'
import { repositories } from '../../utils/database'
import { rulesPreview } from '../../answers/shop'
import { json, jsonBody, route } from '../../utils/route'

const body = Joi.object<{ rules: RuleOverrides; after: string | null }>({
  rules: rulesSchema.required(),
  after: Joi.string().guid().allow(null).default(null),
}).prefs(inWords)

/**
 * The effect of other rules on some of the open jobs. It changes nothing. Ask again with `next` for the following
 * jobs.
 */
export default route(
  { needs: 'installer', body: jsonBody(body, 256 * 1024), answer: json(rulesPreview) },
  async (event, { body: { rules, after } }) => {
    const { shop } = await repositories(event)
    return shop.preview(rules, after)
  },
)
