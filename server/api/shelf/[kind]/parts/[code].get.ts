import { readVersions } from '../../../../db/shelf'
import { workshopDatabase } from '../../../../utils/database'
import { route } from '../../../../utils/reply'
import { noSuchPart, shelfPartOf } from '../../../../utils/shelf'

/** Every version of a part, newest first. */
export default route(async (event) => {
  const { kind, code } = shelfPartOf(event)
  const { sql, workshop } = await workshopDatabase()
  const versions = await readVersions(sql, workshop, kind, code)
  if (versions.length === 0) throw noSuchPart()
  return versions
})
