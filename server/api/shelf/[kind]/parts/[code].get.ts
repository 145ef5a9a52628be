import { repositories } from '../../../../utils/database'
import { noSuchPart, shelfPartOf } from '../../../../utils/shelf'
import { partVersions } from '../../../../answers/shelf'
import { json, route } from '../../../../utils/route'

/** Every version of a part, newest first. */
export default route({ needs: 'apprentice', answer: json(partVersions), refuses: [404] }, async (event) => {
  const { kind, code } = shelfPartOf(event)
  const { shelf } = await repositories(event)
  const versions = await shelf.versions(kind, code)
  if (versions.length === 0) throw noSuchPart()
  return versions
})
