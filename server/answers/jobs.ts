import Joi from 'joi'
import { paperKindIds } from '#core/papers/kinds'
import { verdicts } from '#core/system/verdict'
import { anything, count, id, list, moment, orNull, shape, text } from './shape'

const jobDocument = anything('A job file, as GET /api/schema/job describes it.')
const verdict = Joi.valid(...verdicts)

const place = { id, version: count, craftId: orNull(id), epoch: id, updatedAt: moment, updatedBy: text }
/** A job with its document. */
export const storedJob = shape({ ...place, document: jobDocument })
/** A job that was saved; with its document where the server has given it a number. */
export const savedJob = shape(place, { document: jobDocument })

const rowKeys = {
  id,
  number: text,
  name: text,
  customer: text,
  craft: orNull(text),
  craftId: orNull(id),
  stage: text,
  dueDate: orNull(text),
  verdict: orNull(verdict).description('Null for the moment in which the job is being checked.'),
  headline: text,
  reason: text,
  specifiedVerdict: orNull(verdict),
  specifiedHeadline: orNull(text),
  updatedAt: moment,
  updatedBy: text,
}
export const jobRow = shape(rowKeys)
export const jobPage = shape({ jobs: list(jobRow), next: orNull(text) })
export const recentJobs = list(shape({ ...rowKeys, version: count, epoch: id }))

const change = shape(
  { path: text },
  { before: Joi.any().allow(null), after: Joi.any().allow(null) },
).unknown()
export const historyPage = list(
  shape({ version: count, at: moment, who: text, changes: orNull(list(change)) }).unknown(),
)

export const photoRow = shape({
  id,
  station: text,
  name: text,
  width: count,
  height: count,
  takenAt: moment,
  takenBy: text,
})

const sheetKeys = {
  count,
  number: text,
  kind: Joi.valid(...paperKindIds),
  name: text,
  issuedAt: moment,
  issuedBy: text,
  digest: text,
  until: orNull(moment).description('The last moment at which a quotation can be accepted.'),
  answer: orNull(
    shape({
      answer: Joi.valid('accepted', 'declined'),
      name: text,
      note: text,
      options: list(text),
      alternative: text,
      at: moment,
      by: text,
    }),
  ).description('What the customer answered to a quotation.'),
}
export const sheetRow = shape(sheetKeys)
export const wholeSheet = shape({ ...sheetKeys, sheet: anything('What the sheet says.') })

export const presentList = shape({ here: list(shape({ window: id, person: text, view: text })) })
export const deletedJob = shape({ deleted: id, keptDays: count })
export const restoredJob = shape({ broughtBack: id })
export const removedPhoto = shape({ removed: id })
