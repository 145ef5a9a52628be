import { partName, type PartPath } from '#core/job/document'
import { asFound, asSpecified } from '#core/job/as-specified'
import { nameInSentence } from '#core/units/format'
import type { Gone } from '#core/wiring/network'
import { swapsOf } from '#core/wiring/lists'
import { Steps, type WorkStep } from './step'
import { bankGoes, leadThatStays, startersOf, type Work } from './work'

/** Parts to take out, the bank first. */
export function outSteps(work: Work): WorkStep[] {
  const steps = new Steps('out')
  if (bankGoes(work))
    steps.add(
      'out-house-bank',
      `Lift the old bank out with its vents and posts covered${weightOf(work)}.`,
      'With the bank gone nothing on the house side is live, and there is room to work.',
      { caution: 'Acid and weight: lift with two people, keep it upright, take it to a recycler.' },
    )
  const lead = leadThatStays(work)
  if (lead)
    steps.add(
      'out-lead-feeds',
      'Leave the lead battery in place. Take its leads off and mark what each one fed.',
      lead.serves === 'reserve'
        ? 'It stays as a reserve behind a DC-DC. What it fed moves to the new bar.'
        : 'It stays, with its own fuse and switch, and keeps what it feeds.',
    )
  for (const gone of work.network.gone.filter(({ id }) => id !== 'house-bank')) addGone(steps, gone, work)
  for (const [id, name] of devicesThatGo(work))
    steps.add(
      `out-${id}`,
      `Take out ${nameInSentence(name)} and its leads.`,
      'Left in, it still switches or shows something that no longer counts.',
    )
  if (startersOf(work).some(({ jumpSwitch }) => jumpSwitch === 'yes'))
    steps.add(
      'fit-jump-switch',
      'Take out the jump switch between starting battery and house bank. Cap both leads.',
      'It joins lead to lithium whenever somebody presses it, and nothing limits the current.',
    )
  return steps.all
}

/** Monitors, alarms and switches of the survey that the answer leaves out, by id and name. */
function devicesThatGo({ found }: Work): (readonly [id: string, name: string])[] {
  const [before, done] = [asFound(found), asSpecified(found)]
  return Object.keys(before.devices).flatMap((id) =>
    Object.hasOwn(done.devices, id) ? [] : [[id, partName(before, `devices/${id}` as PartPath)] as const],
  )
}

function weightOf({ before: { one } }: Work): string {
  const { houseBank } = one
  const kg = houseBank.$settled('weightEachKg') ? houseBank.weightEachKg : null
  return kg === null ? '' : `, ${Math.round(kg)} kg each`
}

function addGone(steps: Steps, { id, name, instead }: Gone, { network }: Work): void {
  const swaps = swapsOf({ ...network, gone: network.gone.filter((gone) => gone.id === id) })
  const carried = [...new Set(swaps.flatMap(({ carriedOver }) => carriedOver))]
  const keep = carried.length > 0 ? ` Keep ${carried.join(', ')} for the new unit.` : ''
  steps.add(
    `out-${id}`,
    instead
      ? `Take out ${nameInSentence(name)}. Mark its leads by terminal.${keep}`
      : `Take out ${nameInSentence(name)} with its leads, or cap both ends of each lead.`,
    instead
      ? 'Another unit takes its place. Each lead moves from the old terminal to the new one.'
      : 'A lead left in can join the batteries again.',
    { numbers: carried },
  )
}
