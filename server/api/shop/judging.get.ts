import { repositories } from '../../utils/database'
import { waitingJobs } from '../../answers/shop'
import { json, route } from '../../utils/route'

/** Number of open jobs that wait for a check with the current settings. */
export default route({ needs: 'apprentice', answer: json(waitingJobs) }, async (event) => {
  const { shop } = await repositories(event)
  return { waiting: await shop.waiting() }
})
