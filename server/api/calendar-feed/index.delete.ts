import { endedFeed } from '../../answers/craft'
import { repositories } from '../../utils/database'
import { json, route } from '../../utils/route'

/** Ends the address for calendars. */
export default route({ needs: 'installer', answer: json(endedFeed) }, async (event) => {
  const { calendarFeeds } = await repositories(event)
  return { ended: await calendarFeeds.revoke() }
})
