import Joi from 'joi'
import { inWords, rulesSchema } from '#core/formats/job-schema'
import type { RuleOverrides } from '#core/rules/rules'
import { readJson } from '../../utils/body'
import { repositories } from '../../utils/database'
import { route, validated } from '../../utils/reply'

const body = Joi.object<{ rules: RuleOverrides; after: string | null }>({
  rules: rulesSchema.required(),
  after: Joi.string().guid().allow(null).default(null),
}).prefs(inWords)

/**
 * What other rules would do to some of the open jobs; nothing is changed. Whoever asks goes on with `next`, and
 * stops when nobody wants to know any more.
 */
export default route('installer', async (event) => {
  const { rules, after } = validated(body, await readJson(event, 256 * 1024))
  const { shop } = await repositories(event)
  return shop.preview(rules, after)
})
