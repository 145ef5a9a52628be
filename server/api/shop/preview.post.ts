import Joi from 'joi'
import { inWords, rulesSchema } from '#core/formats/job-schema'
import type { RuleOverrides } from '#core/rules/rules'
import { readJson } from '../../utils/body'
import { repositories } from '../../utils/database'
import { route, validated } from '../../utils/reply'

const body = Joi.object<{ rules: RuleOverrides }>({ rules: rulesSchema.required() }).prefs(inWords)
const mostJudged = 500

/** What other rules would do to the open jobs; nothing is changed. */
export default route(async (event) => {
  const { rules } = validated(body, await readJson(event, 256 * 1024))
  const { shop } = await repositories()
  const { units } = await shop.read()
  return shop.rejudge(rules, units, { keep: false, most: mostJudged })
})
