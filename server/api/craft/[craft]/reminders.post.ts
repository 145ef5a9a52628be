import Joi from 'joi'
import { isoDate } from '#core/formats/job-schema'
import { reminderRow } from '../../../answers/craft'
import { craftIdOf, noSuchCraft } from '../../../utils/craft'
import { repositories } from '../../../utils/database'
import { plainText } from '../../../utils/plain-text'
import { jsonBody, made, route } from '../../../utils/route'
import { whoSchema } from '../../../utils/who'

const body = Joi.object<{ who: string; due: string; words: string }>({
  who: whoSchema,
  due: isoDate.required(),
  words: plainText(300).min(1).required(),
})

/** Adds a reminder for a craft. */
export default route(
  { needs: 'apprentice', body: jsonBody(body), answer: made(reminderRow), refuses: [404] },
  async (event, { body: { who, due, words } }) => {
    const { reminders } = await repositories(event, who)
    const added = await reminders.add(craftIdOf(event), due, words)
    if (!added) throw noSuchCraft()
    return added
  },
)
