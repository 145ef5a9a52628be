import { firstOf } from '#core/collections/held'
import type { BatteryUnit } from '#core/wiring/network'
import { joinText } from '#core/units/format'
import { unitsOf } from '../rig'
import { Steps, type WorkStep } from './step'
import { leadThatStays, numbersOf, type Work } from './work'

/**
 * How far two lithium batteries lie apart when one is full and one is as delivered, V of 12 (engineering default).
 */
const deliverySpreadV = 0.25
/** Charge and resting voltage of full lead-acid, V of 12 (typical figures). */
const leadChargedV = 14.4
const leadRestedV = 12.8
/** Current that may still flow into joined lead-acid after ten minutes, as a share of its ampere-hours. */
const settledShare = 0.05

const lithiumOf = ({ network }: Work): BatteryUnit[] =>
  unitsOf(network, 'battery').filter(({ chemistry }) => chemistry === 'lithium')
/** Lead that is joined to the lithium on the bar; null if there is none. */
const joinedLead = (work: Work): BatteryUnit | null => {
  const lead = leadThatStays(work)
  return lead?.serves === 'house' ? lead : null
}

/** Charge each battery alone, and the voltage difference allowed before joining lithium batteries. */
export function chargeSteps(work: Work): WorkStep[] {
  const { after } = work
  const { bank, q, rules } = after
  const packs = lithiumOf(work)
  const steps = new Steps('charge')
  steps.add(
    'charge-alone',
    joinText(
      `Charge ${packs.length > 1 ? `each of the ${packs.length} lithium batteries` : 'the lithium battery'} `,
      `alone to ${q(bank.middleV, 'V')} with a lithium charger. Let it rest for an hour.`,
    ),
    'It comes half charged. At full the gauge has its starting point, and uneven cells show.',
    { caution: `Do not charge it below ${q(after.one.candidate.coldLimitC, '°C')}, and stay near it.` },
  )
  if (packs.length > 1) {
    const within = rules.joinWithinV * bank.scale
    steps.add(
      'charge-compare',
      joinText(
        'Measure the resting voltage of each lithium battery. ',
        `Join them only if they lie within ${q(within, 'V')} of each other.`,
      ),
      joinText(
        `At ${q(deliverySpreadV * bank.scale, 'V')} apart about `,
        `${q((deliverySpreadV * bank.scale) / (2 * firstOf(packs).ohm), 'A')} would flow between them.`,
      ),
    )
  }
  const lead = joinedLead(work)
  if (lead)
    steps.add(
      'charge-lead',
      joinText(
        `Charge the lead battery alone to ${q(leadChargedV * bank.scale, 'V')} with `,
        'a lead charger until its current stops falling. Let it rest for an hour.',
      ),
      'Lead and lithium rest at different voltages. Only full lead takes little current when you join them.',
    )
  return steps.all
}

/** Batteries joined, the fuse of each last. */
export function joinSteps(work: Work): WorkStep[] {
  const steps = new Steps('join')
  const packs = lithiumOf(work)
  const hasSwitch = numbersOf(work, 'main-switch').length > 0
  steps.add(
    'join-leads',
    joinText(
      `${packs.length > 1 ? 'Join the lithium batteries and connect' : 'Connect'} the leads to `,
      `the battery${hasSwitch ? ' with the main switch off' : ''}: positive first, negative last.`,
    ),
    'The last lead closes the circuit. It should be the one that may touch metal.',
  )
  if (packs.length > 1)
    steps.add(
      'join-fuses',
      'Put in the fuse of each lithium battery, one after the other. Measure the current between them.',
      'It must fall within minutes. If it does not, take the fuse out and compare the voltages again.',
      { numbers: numbersOf(work, ...packs.map(({ id }) => `${id}-fuse`)) },
    )
  return steps.all
}

/**
 * Lead-acid that stays on the bar is joined once the lithium feeds the bar, at rest and with the current watched.
 * Before that no current would flow, and the main fuse would close the circuit.
 */
export function joinLead(steps: Steps, work: Work): void {
  const lead = joinedLead(work)
  if (!lead) return
  const { bank, q } = work.after
  const packs = lithiumOf(work)
  const between = Math.max(0, firstOf(packs).fullV - leadRestedV * bank.scale)
  const ohm = lead.ohm + firstOf(packs).ohm / packs.length
  const ah =
    Number(work.after.one.houseBank.$usual('ahEach')) * Number(work.after.one.houseBank.$usual('parallel'))
  const switches = numbersOf(work, 'lead-switch')
  steps.add(
    'join-lead',
    joinText(
      'With its fuse out and every charger and load off, connect the lead battery: positive first, ',
      'negative last. ',
      `Put a clamp meter on its lead, put its fuse in and close ${switches[0] ?? 'its switch'}.`,
    ),
    joinText(
      `Up to ${q(between / ohm, 'A')} flow into the lead at first. `,
      `After 10 minutes it must be under ${q(ah * settledShare, 'A')}; `,
      'otherwise open the switch and charge the lead again.',
    ),
    { numbers: [...numbersOf(work, 'lead-fuse'), ...switches] },
  )
}
