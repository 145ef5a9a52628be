import { repositories } from '../../../../utils/database'
import { route } from '../../../../utils/reply'
import { noSuchPart, shelfPartOf } from '../../../../utils/shelf'

/** Takes a part off the shelf. Jobs that used it keep its values. */
export default route(async (event) => {
  const { kind, code } = shelfPartOf(event)
  const { shelf } = await repositories()
  if (!(await shelf.retire(kind, code))) throw noSuchPart()
  return { retired: code }
})
