import { endedLink } from '../../../../answers/customer'
import { repositories } from '../../../../utils/database'
import { Refusal } from '../../../../utils/refusal'
import { jobId } from '../../../../utils/reply'
import { json, route } from '../../../../utils/route'

/** Ends the customer's link of a job at once. */
export default route({ needs: 'installer', answer: json(endedLink), refuses: [404] }, async (event) => {
  const id = jobId(event)
  const { customerLinks } = await repositories(event)
  if (!(await customerLinks.revoke(id))) throw new Refusal(404, 'This job has no link')
  return { ended: id }
})
