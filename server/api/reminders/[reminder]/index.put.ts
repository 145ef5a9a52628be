import Joi from 'joi'
import { isoDate } from '#core/formats/job-schema'
import { dayOfMoment } from '#core/reminders/day'
import { reminderRow } from '../../../answers/craft'
import { noSuchReminder, reminderIdOf } from '../../../utils/craft'
import { repositories } from '../../../utils/database'
import { json, jsonBody, route } from '../../../utils/route'
import { whoSchema } from '../../../utils/who'

const body = Joi.object<{ who: string; done?: boolean; due?: string }>({
  who: whoSchema,
  done: Joi.boolean(),
  due: isoDate,
}).xor('done', 'due')

/** Marks a reminder as done, or open again, or moves it to another day. Yearly work that is done comes again. */
export default route(
  { needs: 'apprentice', body: jsonBody(body), answer: json(reminderRow), refuses: [404] },
  async (event, { body: { who, done, due } }) => {
    const id = reminderIdOf(event)
    const { reminders } = await repositories(event, who)
    const row = due
      ? await reminders.move(id, due)
      : done
        ? await reminders.done(id, dayOfMoment(new Date()))
        : await reminders.reopen(id)
    if (!row) throw noSuchReminder()
    return row
  },
)
