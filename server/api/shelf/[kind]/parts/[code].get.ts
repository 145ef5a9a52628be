import { repositories } from '../../../../utils/database'
import { route } from '../../../../utils/reply'
import { noSuchPart, shelfPartOf } from '../../../../utils/shelf'

/** Every version of a part, newest first. */
export default route('apprentice', async (event) => {
  const { kind, code } = shelfPartOf(event)
  const { shelf } = await repositories(event)
  const versions = await shelf.versions(kind, code)
  if (versions.length === 0) throw noSuchPart()
  return versions
})
