import { withSpecified } from '#core/job/as-specified'
import { searchAnswers } from '#core/solve/answers'
import { planOf } from '#core/solve/plan'
import { specifiedBy } from '#core/solve/specify'
import { usualLetterhead } from '#core/quotation/terms'
import { metric } from '#core/units/display'
import { demoShelf } from './demo-shelf'
import { examples } from './examples'

/** The workboat of the demo, as found … */
export const job = examples().find(({ title }) => title === 'job 0417')!.job
const answer = searchAnswers(planOf(job, {}, demoShelf())).answers.find((a) =>
  a.name.startsWith('40 A DC-DC'),
)!
/** … and with a chosen answer. */
export const chosen = withSpecified(job, specifiedBy(answer, 'Ida Brell', '2026-11-20T10:00:00.000Z'))
export const shop = { name: 'Larkspur Slip Electrics', units: metric, rules: {}, letterhead: usualLetterhead }
export const head = { number: '0417-1', issuedAt: '2026-11-21T09:00:00.000Z', issuedBy: 'Ida Brell' }
