import { customerLink } from '../../../../answers/customer'
import { repositories } from '../../../../utils/database'
import { jobId, noSuchJob } from '../../../../utils/reply'
import { json, route } from '../../../../utils/route'

/** The customer's link of a job, without its secret: until when it works, and how often it was opened. */
export default route({ needs: 'apprentice', answer: json(customerLink), refuses: [404] }, async (event) => {
  const id = jobId(event)
  const { jobs, customerLinks } = await repositories(event)
  if (!(await jobs.read(id))) throw noSuchJob()
  return { link: await customerLinks.of(id) }
})
