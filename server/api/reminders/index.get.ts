import { reminderList } from '../../answers/craft'
import { repositories } from '../../utils/database'
import { json, route } from '../../utils/route'

/** Reminders of the shop that are not done, by their day. */
export default route({ needs: 'apprentice', answer: json(reminderList) }, async (event) => {
  const { reminders } = await repositories(event)
  return reminders.open()
})
