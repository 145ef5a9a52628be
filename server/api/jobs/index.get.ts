import Joi from 'joi'
import { stages } from '#core/job/document'
import { verdicts } from '#core/system/verdict'
import { jobSorts, type JobSort } from '../../repositories/job-list'
import { repositories } from '../../utils/database'
import { jobPage } from '../../answers/jobs'
import { json, route } from '../../utils/route'

/** A day that the calendar has not is refused before the database meets it. */
const isDate: Joi.CustomValidator<string> = (after, helpers) => {
  const [day = ''] = after.split('T')
  const date = new Date(`${day}T00:00:00Z`)
  return Number.isNaN(date.getTime()) || date.toISOString().slice(0, 10) !== day
    ? helpers.error('string.pattern.name')
    : after
}

/** The end of a page: the key that it is sorted by, and its last job. */
const pageEnd = (key: RegExp) =>
  Joi.string().pattern(
    new RegExp(`^(${key.source})~[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$`),
    'the next of a page',
  )

const query = Joi.object<{
  words?: string
  stage?: string
  verdict?: string
  sort?: JobSort
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
  sort: Joi.string()
    .valid(...jobSorts)
    .default('changed'),
  after: Joi.when('sort', {
    switch: [
      { is: 'changed', then: pageEnd(/\d{4}-\d\d-\d\dT[0-2]\d:[0-5]\d:[0-5]\d\.\d{6}Z/).custom(isDate) },
      { is: 'due', then: pageEnd(/-?\d{1,9}|2147483647/) },
    ],
    otherwise: pageEnd(/[^\u0000]{0,200}/),
  }),
})

/** A page of the jobs: `next` of the answer is `after` of the next one. */
export default route(
  { needs: 'apprentice', query, answer: json(jobPage) },
  async (event, { query: wanted }) => {
    const { jobList } = await repositories(event)
    return jobList.page(wanted)
  },
)
