import { firstOf } from '#core/collections/held'
import type { Finding } from '#core/assessment/assess'
import { addDcdc, holdBack, runningSignal } from '#core/remedies/arrangements'
import { canTry, remedyLabel, type RemedyRef } from '#core/remedies/catalogue'
import type { Supply } from '#core/remedies/remedy'
import { suppliesFor } from '#core/remedies/supply'
import { sureBudgetA } from '#core/system/alternators'
import { dcdcOutputA } from '#core/system/currents'
import type { AlternatorLane } from '#core/system/lanes'
import type { System } from '#core/system/system'
import { inSentence, nameInSentence } from '#core/units/format'
import { bare, keep, mostSizes, option, topicOf, type Axis, type Ground, type Option } from '../option'

/** How each alternator reaches the bank. */
export const alternatorAxes = (ground: Ground): Axis[] =>
  ground.system.lanes.flatMap((lane) => {
    if (lane.kind !== 'alternator' || !ground.findings.some(({ on }) => on === lane.id)) return []
    const options = lane.link.kind === 'dcdc' ? dcdcSettings(lane, ground) : inPlaceOfLink(lane, ground)
    return [{ about: lane.id, options }]
  })

/** Blocking findings of a lane, except cold, which is a separate decision. */
const findingsOn = (lane: AlternatorLane, { findings }: Ground): Finding[] =>
  findings.filter((finding) => finding.on === lane.id && topicOf(finding) !== 'cold')

/** The DC-DC that is there, set right, or one of another size. */
function dcdcSettings(lane: AlternatorLane, ground: Ground): Option[] {
  const { job, system, shelf } = ground
  const settings = findingsOn(lane, ground).flatMap(({ remedies }) =>
    remedies.filter((ref) => canTry(ref) && ref.id !== 'charger.replace').slice(0, 1),
  )
  const settingsInWords = settings.map((ref) => inSentence(remedyLabel(ref, system.q))).join(', ')
  const wanted: RemedyRef = {
    id: 'dcdc.add',
    on: lane.id,
    value: 30,
    values: { inputV: lane.alternator.nominalV },
  }
  const certain = findingsOn(lane, ground).some((finding) => ground.certain.has(finding))
  return [
    ...(certain || settings.length === 0 ? [] : [keep(`the DC-DC on ${nameInSentence(lane.name)} as it is`)]),
    option(
      settings.length > 0
        ? `keep its DC-DC, ${settingsInWords}`
        : `keep the DC-DC on ${nameInSentence(lane.name)}`,
      ...settings.map(bare),
    ),
    ...suppliesFor(wanted, job, system, shelf, mostSizes + 2).flatMap((supply) =>
      dcdcOptions(lane, supply, system),
    ),
  ]
}

/** A DC-DC instead of the link, another way to limit the alternator, the existing link, or none. */
function inPlaceOfLink(lane: AlternatorLane, ground: Ground): Option[] {
  const { job, system, shelf } = ground
  const own = findingsOn(lane, ground)
  const name = nameInSentence(lane.name)
  const ways = holdBack(lane, system)
  const dcdc = addDcdc(lane, system, system.bank.largestA)
  const units = suppliesFor(dcdc, job, system, shelf, mostSizes + 2).flatMap((supply) =>
    dcdcOptions(lane, supply, system, dcdc.value),
  )
  const mustGo = own
    .filter((finding) => ground.certain.has(finding))
    .some(
      ({ verdict, remedies }) =>
        verdict === 'does-not-suit' && remedies.every((ref) => ref.id === 'dcdc.add'),
    )
  const lowLoss = own.flatMap(({ remedies }) => remedies).find((ref) => ref.id === 'link.low-loss-isolator')
  const isolator = lowLoss && { ref: lowLoss, supply: firstOf(suppliesFor(lowLoss, job, system, shelf)) }
  const held = mustGo
    ? []
    : ways.filter((ref) => ref.id !== 'dcdc.add').flatMap((ref) => heldOptions(ref, isolator, ground))
  const alone = isolator ? [option('low-loss isolator', isolator)] : mustGo ? [] : [keep(`${name} as it is`)]
  const ordered =
    system.rules.alternatorSchool === 'dcdc' || mustGo
      ? [...units, ...held, ...alone]
      : [...held, ...units, ...alone]
  return [...ordered, option(`${name} off the house bank`, bare({ id: 'link.unjoined', on: lane.id }))]
}

/** A way to limit the alternator, with a low-loss isolator if one is needed and stays in the path. */
function heldOptions(
  way: RemedyRef,
  isolator: Option['steps'][number] | undefined,
  { job, system, shelf }: Ground,
): Option[] {
  const beside = way.id === 'link.duty' ? undefined : isolator
  return suppliesFor(way, job, system, shelf, 2).map((supply) => {
    const ref = withPartValue(way, supply)
    const words = inSentence(remedyLabel(ref, system.q))
    return beside
      ? option(`low-loss isolator, ${words}`, beside, { ref, supply })
      : option(words, { ref, supply })
  })
}

/** A value that the data sheet of a supply gives. */
const given = <T>({ values }: Supply, name: string): T | undefined =>
  (values[name] as { value?: T } | undefined)?.value

/** A remedy with the value of the part that was taken for it. */
function withPartValue(ref: RemedyRef, supply: Supply): RemedyRef {
  const opens = given<number>(supply, 'opensAboveA')
  return opens === undefined ? ref : { ...ref, value: opens }
}

/**
 * A DC-DC of the shelf; and, if it is adjustable and the limit is lower, the same one limited to the alternator's
 * all-day current for the warmest plausible case.
 */
function dcdcOptions(lane: AlternatorLane, supply: Supply, system: System, defaultA = 30): Option[] {
  const whole = dcdcOption(lane, supply, system, defaultA)
  const ratedA = given<number>(supply, 'ratedA') ?? defaultA
  const sureA = Math.floor(
    dcdcOutputA(lane, sureBudgetA(lane.alternator, system.rules), system.bank.middleV, system),
  )
  if (given<string>(supply, 'currentLimit') !== 'adjustable' || sureA >= ratedA || sureA < ratedA / 2)
    return [whole]
  const held: RemedyRef = { id: 'charger.limit-current', on: lane.id, value: sureA }
  return [whole, option(`${whole.words}, held to ${sureA} A`, ...whole.steps, bare(held))]
}

function dcdcOption(lane: AlternatorLane, supply: Supply, system: System, defaultA = 30): Option {
  const ratedA = given<number>(supply, 'ratedA') ?? defaultA
  const { signal } = runningSignal(lane, system.rules)
  // A unit that can start on a wire gets one if needed; a unit with only a wire keeps it.
  const taken = signal === 'wire' ? signal : (given<string>(supply, 'signal') ?? signal)
  const { signal: _sheet, ...values } = supply.values
  const settings = {
    absorptionV: system.bank.middleV,
    inputV: lane.alternator.nominalV,
    outputV: String(system.bank.nominalV),
    signal: taken,
  }
  return option(`${ratedA} A DC-DC on ${taken === 'voltage' ? 'voltage' : 'ignition signal'}`, {
    ref: { id: 'dcdc.add', on: lane.id, value: ratedA, values: settings },
    supply: { ...supply, values },
  })
}
