import { calendarFeed } from '../../answers/craft'
import { repositories } from '../../utils/database'
import { json, route } from '../../utils/route'

/** The address at which calendars read the reminders, without its secret. */
export default route({ needs: 'installer', answer: json(calendarFeed) }, async (event) => {
  const { calendarFeeds } = await repositories(event)
  return { feed: await calendarFeeds.current() }
})
