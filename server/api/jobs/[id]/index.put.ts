import Joi from 'joi'
import { checkJob, largestJobFileBytes, SoundGroups } from '#core/formats/job-file'
import type { Seen } from '../../../repositories/actor'
import { NumberTaken } from '../../../repositories/jobs'
import { readJson } from '../../../utils/body'
import { repositories } from '../../../utils/database'
import { Refusal } from '../../../utils/refusal'
import { jobId, noSuchJob, refuseFields, route, validated } from '../../../utils/reply'
import { seenSchema } from '../../../utils/seen'
import { whoSchema } from '../../../utils/who'

const body = Joi.object<Seen & { who: string; document: unknown }>({
  ...seenSchema,
  who: whoSchema,
  document: Joi.object().unknown().required(),
})

/** What was saved lately is not checked again. */
const sound = new SoundGroups()

/** Saves a job over the version it was changed from; otherwise 409 with both sides. */
export default route('apprentice', async (event) => {
  const id = jobId(event)
  const { version, epoch, who, document } = validated(body, await readJson(event, largestJobFileBytes))
  const read = checkJob(document, sound)
  if (!read.ok) throw refuseFields(read.problems)
  const { jobs } = await repositories(event, who)
  const result = await jobs.save(id, { version, epoch }, read.job).catch((cause: unknown) => {
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
      yours: { version, document },
    })
  }
  const { document: _sent, ...saved } = result.job
  return saved
})
