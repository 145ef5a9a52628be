import { getQuery, setResponseStatus } from 'h3'
import Joi from 'joi'
import { largestJobFileBytes, readJobFile } from '#core/formats/job-file'
import { NumberTaken } from '../../repositories/jobs'
import { readText } from '../../utils/body'
import { repositories } from '../../utils/database'
import { refuseFields, route, validated } from '../../utils/reply'
import { whoSchema } from '../../utils/who'

const query = Joi.object<{ who: string }>({ who: whoSchema })

/** A job from a job file: the whole of it or nothing; under the next number where its own is taken. */
export default route('apprentice', async (event) => {
  const text = await readText(event, largestJobFileBytes, ['application/json'])
  const { who } = validated(query, getQuery(event))
  const read = readJobFile(text)
  if (!read.ok) throw refuseFields(read.problems)
  const { jobs } = await repositories(event, who)
  const job = await jobs.create(read.job).catch((cause: unknown) => {
    if (!(cause instanceof NumberTaken)) throw cause
    return jobs.createNumbered((number) => ({ ...read.job, job: { ...read.job.job, number } }))
  })
  setResponseStatus(event, 201)
  return job
})
