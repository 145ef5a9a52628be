import Joi from 'joi'
import { newLink } from '../../../../answers/customer'
import { repositories } from '../../../../utils/database'
import { jobId, noSuchJob } from '../../../../utils/reply'
import { jsonBody, made, route } from '../../../../utils/route'
import { whoSchema } from '../../../../utils/who'

const body = Joi.object<{ who: string; days: number }>({
  who: whoSchema,
  days: Joi.number().integer().min(1).max(3650).default(60),
})

/** Makes a link for the customer of a job. It is shown once, and ends the one before. */
export default route(
  { needs: 'installer', body: jsonBody(body), answer: made(newLink), refuses: [404] },
  async (event, { body: { who, days } }) => {
    const id = jobId(event)
    const { jobs, customerLinks } = await repositories(event, who)
    if (!(await jobs.read(id))) throw noSuchJob()
    return customerLinks.make(id, days)
  },
)
