import Joi from 'joi'
import { repositories } from '../../utils/database'
import { plainText } from '../../utils/plain-text'
import { whoSchema } from '../../utils/who'
import { presentList } from '../../answers/jobs'
import { json, jsonBody, route } from '../../utils/route'

const body = Joi.object<{ window: string; who: string; job: string | null; view: string }>({
  window: Joi.string().guid().required(),
  who: whoSchema,
  /** The job that the window shows; null where it shows none. */
  job: Joi.string().guid().allow(null).required(),
  view: plainText(40).allow('').default(''),
})

/** Says which job a window shows, for others who have it open. */
export default route(
  { needs: 'apprentice', body: jsonBody(body), answer: json(presentList) },
  async (event, { body: { window, who, job, view } }) => {
    const { presence } = await repositories(event, who)
    if (job === null) await presence.leave(window)
    else await presence.enter(window, job, view)
    return { here: job === null ? [] : await presence.here(job) }
  },
)
