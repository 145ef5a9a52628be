import { dayOfMoment, plusMonths } from '#core/reminders/day'
import { todayAnswer } from '../answers/craft'
import { repositories } from '../utils/database'
import { json, route } from '../utils/route'

/**
 * Items that need the shop's attention: jobs by stage, jobs that are due, quotations without an answer, flags of
 * the logbooks, and reminders up to the end of this month.
 */
export default route({ needs: 'apprentice', answer: json(todayAnswer) }, async (event) => {
  const { today, reminders } = await repositories(event)
  const nextMonth = `${plusMonths(dayOfMoment(new Date()), 1).slice(0, 7)}-01`
  const [stages, due, waiting, flagged, open] = await Promise.all([
    today.stages(),
    today.due(),
    today.waiting(),
    today.flagged(),
    reminders.open(nextMonth),
  ])
  return { stages, due, waiting, flagged, reminders: open }
})
