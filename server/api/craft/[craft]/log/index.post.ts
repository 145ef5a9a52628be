import Joi from 'joi'
import type { EntryBody } from '#core/logbook/entry'
import { addedEntries } from '../../../../answers/craft'
import { UnknownEntry } from '../../../../repositories/logbooks'
import { craftIdOf, entrySchema, goodEntries, noSuchCraft } from '../../../../utils/craft'
import { repositories } from '../../../../utils/database'
import { Refusal } from '../../../../utils/refusal'
import { jsonBody, made, route } from '../../../../utils/route'
import { whoSchema } from '../../../../utils/who'

const body = Joi.object<{ who: string; job: string | null; entries: EntryBody[] }>({
  who: whoSchema,
  job: Joi.string().guid().allow(null).default(null).description('The job in which the entries were made.'),
  entries: Joi.array().items(entrySchema).min(1).max(500).required(),
})

/** Adds entries to the logbook of a craft. They are never changed: a correction names the entry that it corrects. */
export default route(
  { needs: 'apprentice', body: jsonBody(body, 512 * 1024), answer: made(addedEntries), refuses: [404] },
  async (event, { body: { who, job, entries } }) => {
    const id = craftIdOf(event)
    const { crafts, followUp } = await repositories(event, who)
    if (!(await crafts.read(id))) throw noSuchCraft()
    try {
      return { added: await followUp.addEntries(id, goodEntries(entries), job) }
    } catch (cause) {
      if (cause instanceof UnknownEntry) throw new Refusal(422, cause.message)
      throw cause
    }
  },
)
