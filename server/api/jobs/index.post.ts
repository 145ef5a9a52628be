import { setResponseStatus } from 'h3'
import Joi from 'joi'
import { copyOfJob, emptyJob, type JobDocument } from '#core/job/document'
import { typicals, type TypicalId } from '#core/job/typicals'
import { readJson } from '../../utils/body'
import { repositories } from '../../utils/database'
import { noSuchJob, route, validated } from '../../utils/reply'
import { whoSchema } from '../../utils/who'

const body = Joi.object<{ who: string; copyOf?: string; typical?: TypicalId }>({
  who: whoSchema,
  copyOf: Joi.string().guid(),
  typical: Joi.valid(...Object.keys(typicals)),
}).oxor('copyOf', 'typical')

/** A new job: empty, a copy of another, or a typical vehicle or vessel to correct. */
export default route('apprentice', async (event) => {
  const { who, copyOf, typical } = validated(body, await readJson(event, 64 * 1024))
  const { jobs } = await repositories(event, who)
  const other = copyOf ? await jobs.read(copyOf) : null
  if (copyOf && !other) throw noSuchJob()
  const documentOf = (number: string): JobDocument => {
    if (other) return copyOfJob(other.document, number)
    return typical ? typicals[typical].job(number) : emptyJob(number, 'New job')
  }
  setResponseStatus(event, 201)
  return jobs.createNumbered(documentOf)
})
