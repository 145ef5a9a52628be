import Joi from 'joi'
import { headOfCraft } from '#core/craft/craft'
import { likeJob, returningJob } from '#core/craft/returning'
import { emptyJob, type JobDocument } from '#core/job/document'
import { storedJob } from '../../../answers/jobs'
import { craftIdOf, noSuchCraft } from '../../../utils/craft'
import { repositories } from '../../../utils/database'
import { noSuchJob } from '../../../utils/reply'
import { jsonBody, made, route } from '../../../utils/route'
import { whoSchema } from '../../../utils/who'

const body = Joi.object<{ who: string; from?: string }>({
  who: whoSchema,
  from: Joi.string()
    .guid()
    .description(
      'A job of another craft of the fleet to copy from; left out for the newest job of this craft.',
    ),
})

/**
 * A new job for a craft: from its newest job as fitted, with the values learnt from that job’s readings. For a
 * craft without a job, or one of a fleet, from the named job.
 */
export default route(
  { needs: 'apprentice', body: jsonBody(body), answer: made(storedJob), refuses: [404] },
  async (event, { body: { who, from } }) => {
    const { crafts, jobs, jobList, sheets } = await repositories(event, who)
    const craft = await crafts.read(craftIdOf(event))
    if (!craft) throw noSuchCraft()
    const last = from ?? (await jobList.newestOf(craft.id))
    const stored = last ? await jobs.read(last) : null
    if (from && !stored) throw noSuchJob()
    const learnt = stored && !from ? await sheets.learntOf(stored.id) : []
    const documentOf = (number: string): JobDocument => {
      const head = headOfCraft(craft, number)
      if (!stored) return { ...emptyJob(number), job: head }
      const made = from ? likeJob(stored.document, number) : returningJob(stored.document, learnt, number)
      return { ...made, job: { ...made.job, ...head } }
    }
    return jobs.createNumbered(documentOf, craft.id)
  },
)
