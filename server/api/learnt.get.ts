import { lessonsOf } from '#core/logbook/learnt'
import { resolveRules } from '#core/rules/rules'
import { lessons } from '../answers/craft'
import { repositories } from '../utils/database'
import { json, route } from '../utils/route'

/** Predictions compared with the readings of all craft: bias and spread, and the default that they support. */
export default route({ needs: 'apprentice', answer: json(lessons) }, async (event) => {
  const { logbooks, shop } = await repositories(event)
  const [readings, { rules }] = await Promise.all([logbooks.predicted(), shop.read()])
  return lessonsOf(readings, resolveRules(rules))
})
