import { getQuery } from 'h3'
import Joi from 'joi'
import { stages } from '#core/job/document'
import { verdicts } from '#core/system/verdict'
import { repositories } from '../../utils/database'
import { route, validated } from '../../utils/reply'

const query = Joi.object<{
  words?: string
  stage?: string
  verdict?: string
  after?: string
  deleted?: boolean
}>({
  words: Joi.string()
    .allow('')
    .max(200)
    .pattern(/\u0000/, { invert: true }),
  stage: Joi.string().valid(...Object.keys(stages)),
  verdict: Joi.string().valid(...verdicts),
  deleted: Joi.boolean(),
  after: Joi.string().pattern(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{6}Z~[0-9a-f-]{36}$/, 'the next of a page'),
})

/** A page of the jobs: `next` of the answer is `after` of the next one. */
export default route(async (event) => {
  const wanted = validated(query, getQuery(event))
  const { jobs } = await repositories()
  return jobs.list(wanted)
})
