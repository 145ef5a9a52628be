import { getQuery } from 'h3'
import Joi from 'joi'
import { stages } from '#core/job/document'
import { verdicts } from '#core/system/verdict'
import { repositories } from '../../utils/database'
import { route, validated } from '../../utils/reply'

const query = Joi.object<{ words?: string; stage?: string; verdict?: string }>({
  words: Joi.string()
    .allow('')
    .max(200)
    .pattern(/\u0000/, { invert: true }),
  stage: Joi.string().valid(...Object.keys(stages)),
  verdict: Joi.string().valid(...verdicts),
})

export default route(async (event) => {
  const wanted = validated(query, getQuery(event))
  const { jobs } = await repositories()
  return jobs.list(wanted)
})
