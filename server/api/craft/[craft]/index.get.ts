import { wholeCraft } from '../../../answers/craft'
import { craftIdOf, noSuchCraft } from '../../../utils/craft'
import { repositories } from '../../../utils/database'
import { json, route } from '../../../utils/route'

/** A craft with its jobs, its like, its photos and its reminders. */
export default route({ needs: 'apprentice', answer: json(wholeCraft), refuses: [404] }, async (event) => {
  const id = craftIdOf(event)
  const { crafts, jobList, photos, reminders } = await repositories(event)
  const craft = await crafts.read(id)
  if (!craft) throw noSuchCraft()
  const [own, fleet, pictures, due] = await Promise.all([
    jobList.ofCraft(id),
    crafts.fleet(craft),
    photos.ofCraft(id),
    reminders.of(id),
  ])
  return { craft, jobs: own, fleet, photos: pictures, reminders: due }
})
