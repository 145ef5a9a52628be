import Joi from 'joi'
import { largestJobFileBytes, readJobFile } from '#core/formats/job-file'
import { NumberTaken } from '../../repositories/job-numbers'
import { readText } from '../../utils/body'
import { repositories } from '../../utils/database'
import { refuseFields } from '../../utils/reply'
import { whoSchema } from '../../utils/who'
import { storedJob } from '../../answers/jobs'
import { made, route } from '../../utils/route'

const query = Joi.object<{ who: string }>({ who: whoSchema })

/** A job from a job file: the whole of it or nothing; under the next number where its own is taken. */
export default route(
  { needs: 'apprentice', query, takes: ['application/json'], answer: made(storedJob) },
  async (event, { query: { who } }) => {
    const text = await readText(event, largestJobFileBytes, ['application/json'])
    const read = readJobFile(text)
    if (!read.ok) throw refuseFields(read.problems)
    const { jobs } = await repositories(event, who)
    const job = await jobs.create(read.job).catch((cause: unknown) => {
      if (!(cause instanceof NumberTaken)) throw cause
      return jobs.createNumbered((number) => ({ ...read.job, job: { ...read.job.job, number } }))
    })
    return job
  },
)
