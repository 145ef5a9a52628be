import { inside } from '#core/units/format'
import type { Gone } from '#core/network/network'
import { swapsOf } from '#core/network/lists'
import type { Step } from './step'
import { bankGoes, leadThatStays, type Work } from './work'

/** What is taken out, the bank first. */
export function outSteps(work: Work): Step[] {
  const { network } = work
  const steps: Step[] = []
  if (bankGoes(work))
    steps.push({
      id: 'out-house-bank',
      phase: 'out',
      words: `Lift the old bank out, its vents and posts covered${weightOf(work)}.`,
      why: 'With the bank gone nothing on the house side is live, and there is room to work.',
      caution: 'Acid and weight: two people, upright, to a place that takes old batteries.',
    })
  const lead = leadThatStays(work)
  if (lead)
    steps.push({
      id: 'out-lead-feeds',
      phase: 'out',
      words: 'Leave the lead battery in its place; take its leads off and mark what each of them fed.',
      why:
        lead.serves === 'reserve'
          ? 'It stays as a reserve, kept full by a DC-DC: what it fed goes to the new bar.'
          : 'It stays, behind a fuse and a switch of its own, and must keep what it feeds.',
    })
  for (const gone of network.gone.filter(({ id }) => id !== 'house-bank')) steps.push(goneStep(gone, work))
  return steps
}

function weightOf({ before: { one } }: Work): string {
  const { houseBank } = one
  const kg = houseBank.$settled('weightEachKg') ? houseBank.weightEachKg : null
  return kg === null ? '' : `, ${Math.round(kg)} kg each`
}

function goneStep({ id, name, instead }: Gone, { network }: Work): Step {
  const lower = inside(name)
  const swaps = swapsOf({ ...network, gone: network.gone.filter((gone) => gone.id === id) })
  const carried = [...new Set(swaps.flatMap(({ carriedOver }) => carriedOver))]
  const follow = instead
    ? carried.length > 0
      ? ` Mark its leads terminal by terminal; ${carried.join(', ')} ${carried.length > 1 ? 'are' : 'is'} carried over.`
      : ' Mark its leads terminal by terminal.'
    : ' Take its leads out with it, or cap both ends: nothing may stay live that goes nowhere.'
  return {
    id: `out-${id}`,
    phase: 'out',
    words: `Take out: ${lower}.${follow}`,
    why: instead
      ? 'Another takes its place: each lead goes from an old terminal to a new one.'
      : 'What stays in by mistake is what joins the batteries again when nobody looks.',
    ...(carried.length > 0 ? { numbers: carried } : {}),
  }
}
