import type { CandidateColumn, SourceHours } from '#core/compare/candidates'
import { partName, type JobDocument } from '#core/job/document'
import {
  dayAway,
  dcAtOnceA,
  oldBankStays,
  freshUsableAh,
  highestDischargeA,
  loadA,
} from '#core/system/energy'
import type { System } from '#core/system/system'
import { durationWords } from '#core/units/format'
import type { Block, Fact, Section } from '../blocks'
import { paragraphs, roughly, told } from './sentences'

/** The capacity of the battery. */
export function holdsSection(system: System, name: string): Section[] {
  const { bank, q } = system
  const usable = freshUsableAh(system)
  return told(
    'Your battery',
    `${name || 'The new battery'} is a lithium iron phosphate (LFP) battery.`,
    `It holds ${q(bank.ah, 'Ah')} in a ${bank.nominalV} V system.`,
    oldBankStays(system) && 'Your old battery stays connected and adds to that.',
    `Plan with ${q(usable, 'Ah')}. The rest is a reserve that makes it last.`,
  )
}

/** Days of use, from the use that was measured or added up; hours under load where it is unknown. */
export function daysSection(system: System, isUseKnown: boolean): Section[] {
  const { q } = system
  const usable = freshUsableAh(system)
  const atOnce = dcAtOnceA(system)
  const hours =
    atOnce > 0 && `With all DC loads on (${q(atOnce, 'A')}) it lasts about ${durationWords(usable / atOnce)}.`
  if (!isUseKnown)
    return told(
      'How long it lasts',
      hours,
      'We did not measure how much you use on a normal day.',
      `Read the monitor for a day. Divide ${q(usable, 'Ah')} by that figure to get the days.`,
    )
  const { use, chargedAh, lastsDays, heatAh } = dayAway(system)
  return told(
    'How long it lasts',
    `You use about ${q(use.ah, 'Ah')} on a normal day away from mains.`,
    heatAh > 0 && `Its heater uses up to ${q(heatAh, 'Ah')} more on the coldest day.`,
    chargedAh > 0 && `Your sources return about ${q(chargedAh, 'Ah')} a day.`,
    chargedAh > 0 && 'This assumes the engine hours and sun that you told us.',
    lastsDays === Infinity
      ? 'That is enough: the battery need not run down.'
      : `From full, the battery then lasts about ${roughly(lastsDays)} days.`,
    hours,
  )
}

/** Loads below this are not worth a line, A. */
const leastListedA = 5
const mostListed = 10

/** Each larger load with its current, and how long the battery runs it alone. */
function loadFacts(system: System, job: JobDocument): Fact[] {
  const { q, many } = system
  const usable = freshUsableAh(system)
  return many.loads
    .map((load) => ({ name: partName(job, load.$path), amps: loadA(load, system) }))
    .filter(({ amps }) => amps >= leastListedA)
    .toSorted((a, b) => b.amps - a.amps)
    .slice(0, mostListed)
    .map(({ name, amps }) => ({
      label: name,
      value: `${q(amps, 'A')}, alone for about ${durationWords(usable / amps)} from full`,
    }))
}

/** Loads that may run at once, by the limit of the battery. */
export function togetherSection(system: System, job: JobDocument): Section[] {
  const { bank, q, many } = system
  const all = highestDischargeA(system)
  const excluded = many.loads.filter(
    (load) => load.supply === 'dc' && load.together !== 'yes' && all.amps + load.amps > bank.continuousA,
  )
  const facts = loadFacts(system, job)
  const limits = paragraphs(
    `The battery delivers up to ${q(bank.continuousA, 'A')} without a break.`,
    `What you run together draws up to ${q(all.amps, 'A')}.`,
    all.amps <= bank.continuousA
      ? 'All of that may run at the same time.'
      : `That is ${q(all.amps - bank.continuousA, 'A')} too much. Switch the largest load off first.`,
    ...excluded.map((load) => `Run ${partName(job, load.$path)} only while the rest is off.`),
    many.inverters.length > 0 &&
      `The inverter at full power draws ${q(all.inverterA, 'A')} of that. It empties the battery fastest.`,
  )
  const blocks: Block[] = facts.length > 0 ? [...limits, { kind: 'facts', facts }] : limits
  return [{ heading: 'What may run at the same time', blocks }]
}

const hoursWords = ({ hours }: SourceHours): string => {
  if (hours === null) return 'not calculated'
  if (hours === 'sets') return 'depends on the sun'
  return hours === Infinity ? 'does not fill it' : `about ${durationWords(hours)}`
}

/** Time from nearly empty to full on each source. */
export function chargingSection({ hoursToFull }: CandidateColumn): Section[] {
  if (hoursToFull.length === 0) return []
  return [
    {
      heading: 'Charging',
      about: 'from nearly empty to full',
      blocks: [
        {
          kind: 'facts',
          facts: hoursToFull.map((one): Fact => ({ label: one.name, value: hoursWords(one) })),
        },
      ],
    },
  ]
}
