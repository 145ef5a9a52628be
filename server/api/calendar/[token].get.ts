import { getRouterParam, setResponseHeader } from 'h3'
import { CalendarDoor } from '../../repositories/calendar-feeds'
import { calendarOf } from '../../utils/calendar'
import { database, repositoriesFor } from '../../utils/database'
import { Refusal } from '../../utils/refusal'
import { media, route } from '../../utils/route'
import { fromOf } from '../../utils/session'

const noSuchFeed = (): Refusal => new Refusal(404, 'This calendar address is not valid any more')

/** Open reminders of a shop for a calendar that knows the address. */
export default route(
  { needs: 'anyone', answer: media('text/calendar'), refuses: [404, 429] },
  async (event) => {
    const token = (getRouterParam(event, 'token') ?? '').replace(/\.ics$/, '')
    if (!/^[\w-]{20,100}$/.test(token)) throw noSuchFeed()
    const entered = await new CalendarDoor(database()).enter(token, fromOf(event).address)
    if (!entered) throw noSuchFeed()
    if ('minutes' in entered)
      throw new Refusal(429, `Too many wrong addresses. Try again in ${entered.minutes} min.`)
    const { reminders, shop } = repositoriesFor(entered)
    const [{ name }, open] = await Promise.all([shop.read(), reminders.open()])
    setResponseHeader(event, 'content-type', 'text/calendar; charset=utf-8')
    return calendarOf(name, open)
  },
)
