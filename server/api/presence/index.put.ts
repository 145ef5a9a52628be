import Joi from 'joi'
import { readJson } from '../../utils/body'
import { repositories } from '../../utils/database'
import { plainText } from '../../utils/plain-text'
import { route, validated } from '../../utils/reply'
import { whoSchema } from '../../utils/who'

const body = Joi.object<{ window: string; who: string; job: string | null; view: string }>({
  window: Joi.string().guid().required(),
  who: whoSchema,
  /** The job that the window shows; null where it shows none. */
  job: Joi.string().guid().allow(null).required(),
  view: plainText(40).allow('').default(''),
})

/** Says which job a window shows, for others who have it open. */
export default route('apprentice', async (event) => {
  const { window, who, job, view } = validated(body, await readJson(event, 4096))
  const { presence } = await repositories(event, who)
  if (job === null) await presence.leave(window)
  else await presence.enter(window, job, view)
  return { here: job === null ? [] : await presence.here(job) }
})
