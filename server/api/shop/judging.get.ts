import { repositories } from '../../utils/database'
import { waitingJobs } from '../../answers/shop'
import { json, route } from '../../utils/route'

/** How many open jobs wait to be checked by what the shop has set. */
export default route({ needs: 'apprentice', answer: json(waitingJobs) }, async (event) => {
  const { shop } = await repositories(event)
  return { waiting: await shop.waiting() }
})
