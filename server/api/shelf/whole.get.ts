import { wholeShelf } from '../../db/shelf'
import { workshopDatabase } from '../../utils/database'
import { route } from '../../utils/reply'

/** Every part that stands on the shelf, for the search for answers. */
export default route(async () => {
  const { sql, workshop } = await workshopDatabase()
  return wholeShelf(sql, workshop)
})
