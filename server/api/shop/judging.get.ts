import { repositories } from '../../utils/database'
import { route } from '../../utils/reply'

/** How many open jobs wait to be checked by what the shop has set. */
export default route(async () => {
  const { shop } = await repositories()
  return { waiting: await shop.waiting() }
})
