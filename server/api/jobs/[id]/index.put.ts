import Joi from 'joi'
import { checkJob, largestJobFileBytes, SoundGroups } from '#core/formats/job-file'
import { unmade } from '#core/sync/order'
import { NumberTaken } from '../../../repositories/job-numbers'
import type { Sending } from '../../../repositories/jobs'
import { repositories } from '../../../utils/database'
import { Refusal } from '../../../utils/refusal'
import { jobId, noSuchJob, refuseFields } from '../../../utils/reply'
import { seenSchema, versionSchema } from '../../../utils/seen'
import { whoSchema } from '../../../utils/who'
import { savedJob } from '../../../answers/jobs'
import { json, jsonBody, route } from '../../../utils/route'

/** Orders without an answer that a device may name. */
const mostUnsure = 200

const body = Joi.object<Sending & { who: string; document: unknown }>({
  ...seenSchema,
  version: versionSchema
    .min(unmade)
    .required()
    .description('Zero makes the job under the id of the address.'),
  change: Joi.string()
    .guid()
    .description('The id of this change. Sent again with the same id, it is saved once.'),
  unsure: Joi.array()
    .items(Joi.string().guid())
    .max(mostUnsure)
    .description('Ids of earlier changes of this job whose answers did not come.'),
  who: whoSchema,
  document: Joi.object().unknown().required(),
})

/** Recently saved groups are not checked again. */
const sound = new SoundGroups()

/** Saves a job over the version it was changed from, or makes it; otherwise 409 with both sides. */
export default route(
  {
    needs: 'apprentice',
    body: jsonBody(body, largestJobFileBytes),
    answer: json(savedJob),
    refuses: [404, 409],
  },
  async (event, { body: { who, document, ...sending } }) => {
    const id = jobId(event)
    const read = checkJob(document, sound)
    if (!read.ok) throw refuseFields(read.problems)
    const { jobs } = await repositories(event, who)
    const isNew = sending.version === unmade
    const saving = isNew ? jobs.createFrom(id, sending, read.job) : jobs.save(id, sending, read.job)
    const result = await saving.catch((cause: unknown) => {
      throw cause instanceof NumberTaken
        ? refuseFields([
            {
              path: 'job/number',
              message: `${cause.number} is already used by another job. Enter another number.`,
            },
          ])
        : cause
    })
    if (!result) throw noSuchJob()
    if (!result.saved) {
      throw new Refusal(409, `${result.theirs.updatedBy} changed this job in the meantime`, {
        theirs: result.theirs,
        arrived: result.arrived,
        yours: { version: sending.version, document },
      })
    }
    const { document: saved, ...place } = result.job
    // A new job has its number from here.
    return isNew ? { ...place, document: saved } : place
  },
)
