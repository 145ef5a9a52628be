import { setResponseHeaders } from 'h3'
import { calendarOf } from '../../utils/calendar'
import { repositories } from '../../utils/database'
import { media, route } from '../../utils/route'

/** Open reminders of the shop as an iCalendar file. */
export default route({ needs: 'apprentice', answer: media('text/calendar') }, async (event) => {
  const { reminders, shop } = await repositories(event)
  const [{ name }, open] = await Promise.all([shop.read(), reminders.open()])
  setResponseHeaders(event, {
    'content-type': 'text/calendar; charset=utf-8',
    'content-disposition': 'attachment; filename="reminders.ics"',
  })
  return calendarOf(name, open)
})
