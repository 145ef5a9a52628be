import type { H3Event } from 'h3'
import Joi from 'joi'
import { isoDate } from '#core/formats/job-schema'
import { crafts } from '#core/job/document'
import { entryOf, entrySources, writtenKinds, type EntryBody } from '#core/logbook/entry'
import { entryProblems } from '#core/logbook/check-entry'
import { logQuantityIds } from '#core/logbook/quantities'
import type { CraftEntry, SavedCraft } from '../repositories/crafts'
import { plainText, longText } from './plain-text'
import { Refusal } from './refusal'
import { idOf, refuseFields } from './reply'

export const noSuchCraft = (): Refusal => new Refusal(404, 'There is no such craft')
export const noSuchCustomer = (): Refusal => new Refusal(404, 'There is no such customer')
export const noSuchReminder = (): Refusal => new Refusal(404, 'There is no such reminder')

/** Ids of the address, or 404. */
export const craftIdOf = (event: H3Event): string => idOf(event, 'craft', noSuchCraft)
export const customerIdOf = (event: H3Event): string => idOf(event, 'customer', noSuchCustomer)
export const reminderIdOf = (event: H3Event): string => idOf(event, 'reminder', noSuchReminder)

export const craftKeys = {
  name: plainText(200).allow('').required(),
  kind: Joi.valid(...Object.keys(crafts))
    .allow(null)
    .default(null),
  registration: plainText(100).allow('').default(''),
  location: plainText(200).allow('').default(''),
  notes: longText(5000).allow('').default(''),
  type: plainText(100)
    .allow('')
    .default('')
    .description('Craft of one customer with the same type are alike.'),
  customerId: Joi.string().guid().allow(null).default(null),
}
/** The parts of a request that describe a craft. */
export const craftEntryOf = (asked: CraftEntry): CraftEntry => {
  const { name, kind, registration, location, notes, type, customerId } = asked
  return { name, kind, registration, location, notes, type, customerId }
}

/** The saved craft. @throws a refusal where it was not saved */
export function savedCraft(saved: SavedCraft) {
  switch (saved.kind) {
    case 'saved':
      return saved.craft
    case 'stale':
      throw new Refusal(409, 'Someone changed this craft in the meantime. Open it again.')
    case 'gone':
      throw noSuchCraft()
    case 'no-customer':
      throw noSuchCustomer()
  }
}

const number = Joi.number().allow(null).default(null)
export const entrySchema = Joi.object<EntryBody>({
  kind: Joi.valid(...writtenKinds).required(),
  at: Joi.string().isoDate().required(),
  quantity: Joi.valid(...logQuantityIds)
    .allow(null)
    .default(null),
  subject: plainText(200).allow('').default(''),
  value: number,
  expected: number,
  tolerance: number,
  words: longText(500).allow('').default(''),
  serial: plainText(100).allow('').default(''),
  warrantyEnd: isoDate.allow(null).default(null),
  corrects: Joi.string().guid().allow(null).default(null),
  source: Joi.valid(...Object.keys(entrySources)).default('typed'),
})

/** Entries that are good. @throws a refusal that names the fields */
export function goodEntries(entries: readonly EntryBody[]): EntryBody[] {
  const now = Date.now()
  const problems = entries.flatMap((entry, i) =>
    entryProblems(entry, now).map(({ field, reason }) => ({
      path: `entries/${i}/${field}`,
      message: reason,
    })),
  )
  if (problems.length > 0) throw refuseFields(problems)
  return entries.map((entry) => entryOf({ ...entry, at: new Date(entry.at).toISOString() }))
}
