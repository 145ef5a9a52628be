import { logbook } from '../../../../answers/craft'
import { craftIdOf, noSuchCraft } from '../../../../utils/craft'
import { repositories } from '../../../../utils/database'
import { json, route } from '../../../../utils/route'

/** The logbook of a craft, oldest entry first, with the entries that were corrected. */
export default route({ needs: 'apprentice', answer: json(logbook), refuses: [404] }, async (event) => {
  const id = craftIdOf(event)
  const { crafts, logbooks } = await repositories(event)
  if (!(await crafts.read(id))) throw noSuchCraft()
  return logbooks.list(id)
})
