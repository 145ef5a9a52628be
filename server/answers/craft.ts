import Joi from 'joi'
import { crafts } from '#core/job/document'
import { entryKinds, entrySources } from '#core/logbook/entry'
import { logQuantityIds } from '#core/logbook/quantities'
import { paperKindIds } from '#core/papers/kinds'
import { reminderKinds } from '#core/reminders/reminders'
import { jobRow } from './jobs'
import { anything, count, flag, id, list, moment, orNull, shape, text, tableReadOf } from './shape'

const day = Joi.string().pattern(/^\d{4}-\d{2}-\d{2}$/)

const craftKeys = {
  id,
  version: count,
  name: text,
  kind: orNull(Joi.valid(...Object.keys(crafts))),
  registration: text,
  location: text,
  notes: text,
  type: text,
  customerId: orNull(id),
  customer: text,
  contact: text,
  jobs: count,
  lastAt: moment,
}
export const craftRow = shape(craftKeys)
export const craftPage = shape({ crafts: list(craftRow), next: orNull(text) })

export const reminderRow = shape({
  id,
  craft: id,
  craftName: text,
  customer: text,
  kind: Joi.valid(...Object.keys(reminderKinds)),
  due: day,
  words: text,
  doneAt: orNull(moment),
  doneBy: orNull(text),
})
export const reminderList = list(reminderRow)

export const wholeCraft = shape({
  craft: craftRow,
  jobs: list(jobRow),
  fleet: list(shape({ id, name: text, registration: text })),
  photos: list(
    shape({ id, job: id, jobNumber: text, station: text, name: text, takenAt: moment, takenBy: text }),
  ),
  reminders: reminderList,
})

const number = orNull(Joi.number())
export const logbook = list(
  shape({
    id,
    job: orNull(id),
    at: moment,
    addedAt: moment,
    by: text,
    kind: Joi.valid(...Object.keys(entryKinds)),
    quantity: orNull(Joi.valid(...logQuantityIds)),
    subject: text,
    value: number,
    expected: number,
    tolerance: number,
    words: text,
    serial: text,
    warrantyEnd: orNull(day),
    corrects: orNull(id),
    source: Joi.valid(...Object.keys(entrySources)),
  }),
)
export const addedEntries = shape({ added: count })
export const logbookRead = tableReadOf(addedEntries)

export const customerRow = shape({
  id,
  name: text,
  contact: text,
  notes: text,
  crafts: count,
  jobs: count,
  erasedAt: orNull(moment),
})
export const customerList = shape({ customers: list(customerRow), next: orNull(text) })
export const wholeCustomer = shape({
  customer: customerRow,
  crafts: list(craftRow),
  papers: list(
    shape({ job: id, count, number: text, kind: Joi.valid(...paperKindIds), name: text, issuedAt: moment }),
  ),
})

export const calendarFeed = shape({
  feed: orNull(shape({ createdAt: moment, createdBy: text, readAt: orNull(moment) })),
})
export const newFeed = shape({ token: text })
export const endedFeed = shape({ ended: flag })
export const movedJob = shape({ craft: id })
export const customerData = anything('All data of the customer.')

const check = shape({ id: text, from: Joi.valid('limit', 'trend', 'open'), words: text, why: text })
/** Items that need the shop's attention. */
export const todayAnswer = shape({
  stages: anything('How many jobs stand at each stage.'),
  due: list(shape({ id, number: text, name: text, customer: text, stage: text, dueDate: day })),
  waiting: list(
    shape({
      job: id,
      count,
      number: text,
      name: text,
      jobName: text,
      customer: text,
      issuedAt: moment,
      until: moment,
    }),
  ),
  flagged: list(shape({ craft: id, name: text, customer: text, checks: list(check) })),
  reminders: reminderList,
})

export const erasedCustomer = shape({ erased: id })

const learntRow = shape({
  group: text,
  readings: count,
  crafts: count,
  bias: Joi.number(),
  spread: Joi.number(),
})
export const lessons = list(
  shape({
    topic: text,
    title: text,
    unit: text,
    all: learntRow,
    rows: list(learntRow),
    offer: orNull(shape({ rule: text, now: Joi.number(), fits: Joi.number(), why: text })),
    noOffer: text,
  }),
)

export const takenArchive = shape({ madeAt: moment, files: count })
