import { repositories } from '../../utils/database'
import { route } from '../../utils/reply'

/** Every part that stands on the shelf, for the search for answers. */
export default route(async () => {
  const { shelf } = await repositories()
  return shelf.whole()
})
