import { retirePart } from '../../../../db/shelf'
import { workshopDatabase } from '../../../../utils/database'
import { route } from '../../../../utils/reply'
import { noSuchPart, shelfPartOf } from '../../../../utils/shelf'

/** Takes a part off the shelf. Jobs that used it keep its values. */
export default route(async (event) => {
  const { kind, code } = shelfPartOf(event)
  const { sql, workshop } = await workshopDatabase()
  if (!await retirePart(sql, workshop, kind, code)) throw noSuchPart()
  return { retired: code }
})
