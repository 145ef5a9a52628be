import Joi from 'joi'
import { customerPage } from '../../answers/customer'
import { customerOf, papersForCustomer } from '../../utils/customer'
import { repositoriesFor } from '../../utils/database'
import { tokenSchema } from '../../utils/people'
import { json, jsonBody, route } from '../../utils/route'

const body = Joi.object<{ token: string }>({ token: tokenSchema })

/** The papers of a customer's link. The secret comes in the body, so that no log holds it. */
export default route(
  { needs: 'anyone', body: jsonBody(body), answer: json(customerPage), refuses: [404, 429] },
  async (event, { body: { token } }) => {
    const { job, actor } = await customerOf(event, token, true)
    const { jobs, shop, sheets } = repositoriesFor(actor)
    const [stored, { name }, papers] = await Promise.all([
      jobs.read(job),
      shop.read(),
      papersForCustomer(sheets, job),
    ])
    return { shop: name, job: stored?.document.job.name ?? '', papers }
  },
)
