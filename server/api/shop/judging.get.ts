import { repositories } from '../../utils/database'
import { route } from '../../utils/reply'

/** How many open jobs wait to be checked by what the shop has set. */
export default route('apprentice', async (event) => {
  const { shop } = await repositories(event)
  return { waiting: await shop.waiting() }
})
