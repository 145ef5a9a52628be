import Joi from 'joi'
import { copyOfJob, emptyJob, type JobDocument } from '#core/job/document'
import { typicals, type TypicalId } from '#core/job/typicals'
import { repositories } from '../../utils/database'
import { noSuchJob } from '../../utils/reply'
import { whoSchema } from '../../utils/who'
import { storedJob } from '../../answers/jobs'
import { jsonBody, made, route } from '../../utils/route'

const body = Joi.object<{ who: string; copyOf?: string; typical?: TypicalId }>({
  who: whoSchema,
  copyOf: Joi.string().guid(),
  typical: Joi.valid(...Object.keys(typicals)),
}).oxor('copyOf', 'typical')

/** A new job: empty, a copy of another, or a typical vehicle or vessel to correct. */
export default route(
  { needs: 'apprentice', body: jsonBody(body, 64 * 1024), answer: made(storedJob), refuses: [404] },
  async (event, { body: { who, copyOf, typical } }) => {
    const { jobs } = await repositories(event, who)
    const other = copyOf ? await jobs.read(copyOf) : null
    if (copyOf && !other) throw noSuchJob()
    const documentOf = (number: string): JobDocument => {
      if (other) return copyOfJob(other.document, number)
      return typical ? typicals[typical].job(number) : emptyJob(number, 'New job')
    }
    return jobs.createNumbered(documentOf)
  },
)
