import Joi from 'joi'
import { repositories } from '../../../utils/database'
import { jobId, noSuchJob } from '../../../utils/reply'
import { whoSchema } from '../../../utils/who'
import { restoredJob } from '../../../answers/jobs'
import { json, jsonBody, route } from '../../../utils/route'

const body = Joi.object<{ who: string }>({ who: whoSchema })

/** Brings back a job that was deleted. */
export default route(
  { needs: 'installer', body: jsonBody(body, 64 * 1024), answer: json(restoredJob), refuses: [404] },
  async (event, { body: { who } }) => {
    const id = jobId(event)
    const { jobs } = await repositories(event, who)
    if (!(await jobs.bringBack(id))) throw noSuchJob()
    return { broughtBack: id }
  },
)
