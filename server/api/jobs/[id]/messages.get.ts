import { customerMessages as answer } from '../../../answers/customer'
import { repositories } from '../../../utils/database'
import { jobId, noSuchJob } from '../../../utils/reply'
import { json, route } from '../../../utils/route'

/** Messages that the customer of a job wrote, newest first. */
export default route({ needs: 'apprentice', answer: json(answer), refuses: [404] }, async (event) => {
  const id = jobId(event)
  const { jobs, customerMessages } = await repositories(event)
  if (!(await jobs.read(id))) throw noSuchJob()
  return customerMessages.list(id)
})
