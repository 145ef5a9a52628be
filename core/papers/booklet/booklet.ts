import { wiredJob } from '#core/assessment/wired'
import { columnOf } from '#core/compare/candidates'
import { asFitted } from '#core/job/as-fitted'
import { dayAway } from '#core/system/energy'
import { factsOf, usualSystem, ifKnown } from '#core/system/system'
import type { PaperBody } from '../head'
import type { PlainInputs } from '../inputs'
import {
  alarmSection,
  coldSection,
  comeBackSection,
  monitorSection,
  neverSection,
  storageSection,
  switchOffSection,
} from './care'
import { serialsSection } from '../serials'
import { fittedSection, lifeSection, placesSection } from './fitted'
import { chargingSection, daysSection, holdsSection, togetherSection } from './use'

/**
 * The customer's booklet: the fitted parts, how to use them, and what never to do.
 * Its figures are of the job as it was fitted.
 */
export function bookletPaper({ job, rules, shop, letterhead }: PlainInputs): PaperBody {
  const settings = { rules, units: shop.units }
  const fitted = asFitted(job)
  const facts = factsOf(fitted, settings)
  const system = usualSystem(facts)
  const { q } = system
  const column = columnOf(fitted, 'candidate', settings)
  const isUseKnown = ifKnown(facts, dayAway) !== null
  const { name, customer, registration, location } = job.job
  const contact = [
    shop.name,
    letterhead.address.replace(/\s*\n\s*/g, ', '),
    letterhead.phone,
    letterhead.email,
  ]
    .filter(Boolean)
    .join(' · ')
  return {
    title: `Your lithium battery${name ? ` on ${name}` : ''}`,
    under: [[customer, registration, location].filter(Boolean).join(' · ')].filter(Boolean),
    type: 'large',
    sections: [
      ...holdsSection(system, fitted.candidate.name ?? ''),
      ...daysSection(system, isUseKnown),
      ...togetherSection(system, fitted),
      ...chargingSection(column),
      ...neverSection(system),
      ...placesSection(wiredJob(fitted, settings), q),
      ...monitorSection(system),
      ...alarmSection(system),
      ...switchOffSection(system),
      ...coldSection(system),
      ...storageSection(system),
      ...comeBackSection(contact),
      ...fittedSection(fitted),
      ...serialsSection(fitted),
      ...lifeSection(system, column, isUseKnown),
    ],
  }
}
