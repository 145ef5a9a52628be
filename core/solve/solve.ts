import { assessAhead, findingsOf, systemFor, type Finding } from '#core/assessment/assess'
import { applyRemedy, canTry, remedyHours, remedyLabel, sameRemedy, type RemedyRef } from '#core/remedies/catalogue'
import { completeLinks, type AlternatorLane, type System } from '#core/system/system'
import { isWorse } from '#core/system/verdict'
import { holdBack, runningSignal } from '#core/assessment/checks/alternator'
import { partAt, partName, withPart, type JobDocument, type PartPath } from '#core/job/document'
import type { ListedPart } from '#core/job/specified'
import { resolveRules, type RuleOverrides } from '#core/rules/rules'
import { plantFrom } from '#core/simulation/plant-of-job'
import { inputsOf } from '#core/simulation/inputs'
import { totalsOf, type Totals } from '#core/simulation/runs'
import { valuesFromShelf, type ShelfPart } from '#core/shelf/kinds'
import { inSentence } from '#core/units/format'
import { batteries, shelfPart, suppliesFor, type Supply } from '#core/remedies/supply'

/** One thing that is done: a remedy with the parts it takes. */
export interface Step {
  readonly ref: RemedyRef
  readonly label: string
  readonly on: string
  readonly parts: readonly ListedPart[]
  /** What the data sheet of its part then says of the part of the job. */
  readonly values: Readonly<Record<string, unknown>>
  readonly hours: number
  /** Ids of the checks it settles. */
  readonly settles: readonly string[]
}

/** A battery of the shelf and how many of them stand in parallel. */
export interface Battery {
  readonly part: ShelfPart
  readonly parallel: number
}

/** One decision of a combination: nothing, or some remedies that belong together, under one name. */
interface Option {
  readonly words: string
  readonly steps: readonly { readonly ref: RemedyRef; readonly supply: Supply | null }[]
  /** Another battery of the shelf in place of the candidate. */
  readonly battery?: Battery
}

/** What can be decided about one thing, in several ways. */
interface Axis {
  readonly about: PartPath
  readonly options: readonly Option[]
}

/** Everything a search needs; the same for whoever works on a share of it. */
export interface Plan {
  readonly job: JobDocument
  readonly shopRules: RuleOverrides
  readonly shelf: readonly ShelfPart[]
  readonly axes: readonly Axis[]
  readonly count: number
  /** What stands in the way of the job as it was found. */
  readonly before: readonly Finding[]
}

/** What came of one combination. */
export interface Evaluation {
  readonly index: number
  readonly job: JobDocument
  readonly name: string
  readonly steps: readonly Step[]
  /** Another battery of the shelf that takes the place of the candidate. */
  readonly battery: Battery | null
  readonly settles: boolean
  /** Findings that stay in the way, and those only a measurement decides. */
  readonly inTheWay: readonly Finding[]
  readonly open: readonly Finding[]
  /** What is accepted and written on the customer's paper: remedies that change nothing in the survey. */
  readonly accepted: readonly RemedyRef[]
  readonly figures: Figures | null
}

/** What tells answers apart. */
export interface Figures {
  readonly cost: number
  readonly partsCost: number
  readonly hours: number
  /** Things whose price is not known. */
  readonly unpriced: number
  /** From the shop's low charge to full in ordinary use, h; null where three days do not fill it. */
  readonly hoursToFull: number | null
  /** Hottest the alternator's case gets in those three days, °C; null without one. */
  readonly alternatorPeakC: number | null
  readonly changes: number
  /** Steps that rest on something nobody has seen yet: a warmer place, a stronger floor. */
  readonly unseen: number
  readonly unservedAh: number
}

/** Most combinations looked at. */
export const mostCombinations = 720
const mostSizes = 4
const mostRounds = 5
/** Hours of ordinary use each answer is run for. */
export const runDays = 3

const keep = (words: string): Option => ({ words, steps: [] })
const option = (words: string, ...steps: Option['steps']): Option => ({ words, steps })
const bare = (ref: RemedyRef): Option['steps'][number] => ({ ref, supply: null })

const isSetting = (ref: RemedyRef): boolean => /^charger\.(equalise-off|set-|use-lithium|float-off|compensation-off|limit-current)/.test(ref.id)
export const inTheWayOf = ({ verdict }: Finding): boolean => isWorse(verdict, 'suits') && verdict !== 'measure-first'

/** What an answer may leave to a line on the customer's paper. */
const onPaper: readonly RemedyRef['id'][] = ['charger.top-up', 'use.charge-more', 'battery.keep-lead', 'layup.top-up']
/** Whether what remains of a finding is a line on the customer's paper. */
export const isAccepted = ({ verdict, remedies }: Finding): boolean => verdict === 'suits-once-changed' && remedies[0] !== undefined && onPaper.includes(remedies[0].id)

/**
 * What there is to decide, from the findings of the job as it stands, those of its runs too: how each alternator reaches the bank, what becomes
 * of each charger and controller, which battery and how many, how it is kept warm, and how lead and lithium live together.
 * Pure: the same job, rules and shelf give the same plan.
 */
export function planOf(surveyed: JobDocument, shopRules: RuleOverrides, shelf: readonly ShelfPart[]): Plan {
  const job = completeLinks(surveyed)
  const system = systemFor(job, shopRules)
  const findings: Finding[] = [...findingsOf(system), ...assessAhead(job, shopRules)].filter(inTheWayOf)
  const axes: Axis[] = [
    ...alternatorAxes(job, system, findings, shelf), ...chargerAxes(job, system, findings, shelf),
    ...batteryAxis(job, system, findings, shelf), ...coldAxis(job, system, findings, shelf), ...mixedAxis(findings),
  ]
  const trimmed = trim(axes.filter((axis) => axis.options.length > 0))
  return { job, shopRules, shelf, axes: trimmed, before: findings, count: trimmed.reduce((product, axis) => product * axis.options.length, 1) }
}

/** Takes options off the end of the longest axes until the product is small enough. */
function trim(axes: readonly Axis[]): Axis[] {
  const trimmed = [...axes]
  const product = (): number => trimmed.reduce((all, axis) => all * axis.options.length, 1)
  while (product() > mostCombinations) {
    const longest = trimmed.reduce((a, axis, i) => (axis.options.length > trimmed[a]!.options.length ? i : a), 0)
    trimmed[longest] = { ...trimmed[longest]!, options: trimmed[longest]!.options.slice(0, -1) }
  }
  return trimmed
}

function alternatorAxes(job: JobDocument, system: System, findings: readonly Finding[], shelf: readonly ShelfPart[]): Axis[] {
  return system.lanes.flatMap((lane): Axis[] => {
    if (lane.kind !== 'alternator') return []
    const own = findings.filter((finding) => finding.on === lane.id && !finding.id.startsWith('cold.'))
    const all = findings.filter((finding) => finding.on === lane.id)
    if (all.length === 0) return []
    system.scene.begin(new Map())
    const name = inSentence(lane.name)
    if (lane.link.kind === 'dcdc') {
      const sizes = suppliesFor({ id: 'dcdc.add', on: lane.id, value: 30, values: { inputV: lane.alternator.nominalV } }, job, system, shelf, mostSizes + 2)
      const settings = own.flatMap((finding) => finding.remedies.filter((ref) => canTry(ref) && ref.id !== 'charger.replace').slice(0, 1))
      return [{ about: lane.id, options: [
        option(settings.length > 0 ? `keep its DC-DC, ${settings.map((ref) => inSentence(remedyLabel(ref))).join(', ')}` : `keep the DC-DC on ${name}`, ...settings.map(bare)),
        ...sizes.map((supply) => dcdcOption(lane, supply, system)),
      ] }]
    }
    const ways = holdBack(lane, system)
    const dcdc = ways.find((ref) => ref.id === 'dcdc.add')!
    const lowLoss = own.flatMap((finding) => finding.remedies).find((ref) => ref.id === 'link.low-loss-isolator')
    const straight = own.some((finding) => finding.verdict === 'does-not-suit' && finding.remedies.every((ref) => ref.id === 'dcdc.add'))
    const held = straight ? [] : ways.filter((ref) => ref.id !== 'dcdc.add').flatMap((ref) => suppliesFor(ref, job, system, shelf, 2).map((supply) =>
      option(`${lowLoss && ref.id !== 'link.duty' ? 'low-loss isolator, ' : ''}${inSentence(remedyLabel(withPartValue(ref, supply)))}`, ...(lowLoss && ref.id !== 'link.duty' ? [{ ref: lowLoss, supply: suppliesFor(lowLoss, job, system, shelf)[0]! }] : []), { ref: withPartValue(ref, supply), supply })))
    const units = suppliesFor(dcdc, job, system, shelf, mostSizes + 2).map((supply) => dcdcOption(lane, supply, system, dcdc.value))
    const alone: Option[] = lowLoss ? [option('low-loss isolator', { ref: lowLoss, supply: suppliesFor(lowLoss, job, system, shelf)[0]! })] : straight ? [] : [keep(`${name} as it is`)]
    const ordered = system.rules.alternatorSchool === 'dcdc' || straight ? [...units, ...held, ...alone] : [...held, ...units, ...alone]
    return [{ about: lane.id, options: [...ordered, option(`${name} off the house bank`, bare({ id: 'link.unjoined', on: lane.id }))] }]
  })
}

/** A remedy with the value of the part that was taken for it. */
function withPartValue(ref: RemedyRef, { values }: Supply): RemedyRef {
  const opens = (values.opensAboveA as { value?: number } | undefined)?.value
  return opens === undefined ? ref : { ...ref, value: opens }
}

function dcdcOption(lane: AlternatorLane, supply: Supply, system: System, wishedA = 30): Option {
  const of = <T>(name: string): T | undefined => (supply.values[name] as { value?: T } | undefined)?.value
  const ratedA = of<number>('ratedA') ?? wishedA
  const { signal } = runningSignal(lane, system.rules)
  // A unit that can start on a wire is given one where it is needed; one that only has a wire keeps it.
  const taken = signal === 'wire' ? signal : of<string>('signal') ?? signal
  const { signal: _sheet, ...values } = supply.values
  return option(`${ratedA} A DC-DC on ${taken === 'voltage' ? 'voltage' : 'ignition signal'}`, { ref: { id: 'dcdc.add', on: lane.id, value: ratedA, values: { absorptionV: system.bank.middleV, inputV: lane.alternator.nominalV, outputV: String(system.bank.nominalV), signal: taken } }, supply: { ...supply, values } })
}

function chargerAxes(job: JobDocument, system: System, findings: readonly Finding[], shelf: readonly ShelfPart[]): Axis[] {
  return system.lanes.flatMap((lane): Axis[] => {
    if (lane.kind !== 'charger' && lane.kind !== 'solar') return []
    const own = findings.filter((finding) => finding.on === lane.id && !finding.id.startsWith('cold.'))
    if (own.length === 0) return []
    system.scene.begin(new Map())
    const name = partName(job, lane.id)
    const settings: RemedyRef[] = []
    for (const finding of own) {
      const ref = finding.remedies.find(isSetting)
      if (ref && !settings.some((known) => sameRemedy(known, ref))) settings.push(ref)
    }
    const all = own.every((finding) => finding.remedies.some((ref) => isSetting(ref) || !canTry(ref)))
    const replace: RemedyRef = { id: 'charger.replace', on: lane.id, value: system.bank.wishedA, values: { absorptionV: system.bank.middleV } }
    const units = lane.kind === 'charger' ? suppliesFor(replace, job, system, shelf, mostSizes)
      : suppliesFor({ id: 'solar.larger', on: lane.id, value: lane.solar.ratedA }, job, system, shelf, 2)
    const toReplace = (supply: Supply): Option => {
      const ratedA = (supply.values.ratedA as { value?: number } | undefined)?.value ?? replace.value!
      return option(supply.parts[0]?.code ? `${inSentence(name)} replaced by ${supply.parts[0].name}` : `${inSentence(name)} replaced`, { ref: lane.kind === 'charger' ? { ...replace, value: ratedA } : { id: 'solar.larger', on: lane.id, value: ratedA }, supply })
    }
    return [{ about: lane.id, options: [
      ...(all ? [option(settings.length > 0 ? `${settings.map((ref) => inSentence(remedyLabel(ref))).join(', ')}, keep ${inSentence(name)}` : `keep ${inSentence(name)}`, ...settings.map(bare))] : []),
      ...units.map(toReplace),
    ] }]
  })
}

function batteryAxis(job: JobDocument, system: System, findings: readonly Finding[], shelf: readonly ShelfPart[]): Axis[] {
  const own = findings.filter((finding) => finding.on === 'candidate' && finding.remedies.some((ref) => ref.id === 'battery.other' || ref.id === 'battery.more-parallel'))
  if (own.length === 0) return []
  system.scene.begin(new Map())
  const more = [...new Set(own.flatMap((finding) => finding.remedies.filter((ref) => ref.id === 'battery.more-parallel').map((ref) => ref.value!)))].sort((a, b) => a - b)
  const { ah, each, nominalV } = system.bank
  const name = job.candidate.name ?? 'the new battery'
  const fitting = shelf.filter((part) => part.kind === 'batteries' && part.values.chemistry === 'lfp' && part.values.purpose !== (each.purpose === 'house' ? 'starter' : 'house') && Number(part.values.nominalV) === nominalV && part.code !== job.candidate.shelf?.code)
  const sized = fitting.flatMap((part) => Array.from({ length: Number(part.values.mostParallel ?? 1) }, (_, i) => ({ part, parallel: i + 1 })))
    .filter(({ part, parallel }) => { const all = Number(part.values.ahEach) * parallel; return all >= ah * 0.7 && all <= Math.max(ah * 3, ah + 300) })
    .sort((a, b) => Number(a.part.values.price ?? 0) * a.parallel - Number(b.part.values.price ?? 0) * b.parallel).slice(0, 10)
  return [{ about: 'candidate', options: [
    keep(name),
    ...more.map((count) => option(`${count} × ${name}`, { ref: { id: 'battery.more-parallel', on: 'candidate', value: count }, supply: suppliesFor({ id: 'battery.more-parallel', on: 'candidate', value: count }, job, system, shelf)[0]! })),
    ...sized.map(({ part, parallel }): Option => ({ words: `${parallel > 1 ? `${parallel} × ` : ''}${part.name} instead`, steps: [], battery: { part, parallel } })),
  ] }]
}

function coldAxis(job: JobDocument, system: System, findings: readonly Finding[], shelf: readonly ShelfPart[]): Axis[] {
  const cold = findings.filter((finding) => finding.id.startsWith('cold.') && finding.id !== 'cold.layup')
  if (cold.length === 0) return []
  system.scene.begin(new Map())
  const heater: RemedyRef = { id: 'cold.heater', on: 'candidate' }
  const heats = cold.some((finding) => finding.remedies.some((ref) => ref.id === 'cold.heater'))
  const warmest = Math.max(0, ...cold.flatMap((finding) => finding.remedies.filter((ref) => ref.id === 'cold.warmer-place').map((ref) => ref.value!)))
  const warmer: RemedyRef = { id: 'cold.warmer-place', on: 'place', value: warmest }
  return [{ about: 'place', options: [
    ...(heats ? suppliesFor(heater, job, system, shelf, 3).map((supply) => option(supply.parts[0]?.code ? `${supply.parts[0].name} under it` : 'heating pad', { ref: heater, supply })) : []),
    ...(warmest > 0 ? [option('battery in a warmer place', bare(warmer))] : []),
    // Less current, or another battery, may be enough.
    keep(''),
  ] }]
}

function mixedAxis(findings: readonly Finding[]): Axis[] {
  const refs = findings.filter((finding) => finding.id.startsWith('mixed.')).flatMap((finding) => finding.remedies).filter((ref) => ref.id === 'mixed.conditions' || ref.id === 'mixed.separate')
  const unlike = refs.filter((ref, i) => refs.findIndex((other) => sameRemedy(other, ref)) === i)
  return unlike.length === 0 ? [] : [{ about: 'use', options: unlike.map((ref) => option(ref.id === 'mixed.conditions' ? 'hybrid bank with stops and switches' : 'lead and lithium parted by a DC-DC', bare(ref))) }]
}

/** The options of a combination: its number written in the mixed base of the axes. */
function optionsAt({ axes }: Plan, index: number): Option[] {
  let rest = index
  return axes.map(({ options }) => {
    const chosen = options[rest % options.length]!
    rest = Math.floor(rest / options.length)
    return chosen
  })
}

/** Carries out remedies on a job, one after the other, and keeps account of what they take. */
export class Draft {
  readonly steps: Step[] = []
  constructor(public job: JobDocument, private readonly plan: Pick<Plan, 'shelf'>) {}

  take(ref: RemedyRef, settles: readonly string[], given: Supply | null, system: System): void {
    const known = this.steps.findIndex((step) => sameRemedy(step.ref, ref))
    const supply = given ?? suppliesFor(ref, this.job, system, this.plan.shelf)[0]!
    const at = partAt(this.job, ref.on)
    const on = at && at.kind !== 'use' && at.kind !== 'place' ? partName(this.job, ref.on) : ''
    this.job = applyRemedy(this.job, ref)
    if (Object.keys(supply.values).length > 0) this.job = withPart(this.job, ref.on, (part) => ({ ...part, ...supply.values }))
    const step: Step = { ref, label: remedyLabel(ref), on, parts: supply.parts, values: supply.values, hours: remedyHours(ref), settles }
    // The second time a thing is done replaces the first: it is the same part, set or chosen better.
    if (known >= 0) this.steps[known] = { ...step, settles: [...new Set([...this.steps[known]!.settles, ...settles])] }
    else this.steps.push(step)
  }

  /** Another battery of the shelf in place of the candidate. */
  swap({ part, parallel }: Battery): void {
    const counted = { value: parallel, how: 'assumed' } as const
    this.job = withPart(this.job, 'candidate', () => ({ ...valuesFromShelf(part, 'candidate'), series: { value: 1, how: 'assumed' }, parallel: counted }))
  }
}

/** Two devices replaced by a monitor take one monitor; one shunt is enough. */
export function withoutDoubles(steps: readonly Step[]): Step[] {
  let monitored = false
  return steps.map((step) => {
    if (step.ref.id !== 'device.replace-by-monitor' && step.ref.id !== 'monitor.add') return step
    const again = monitored
    monitored = true
    return again ? { ...step, parts: [], hours: 0.25 } : step
  })
}

/**
 * Carries out one combination: its options, then whatever their carrying out asks for, until nothing stands in the way
 * or nothing more can be done. What settles the job is run for three days of ordinary use.
 * @param index 0 to `plan.count` − 1
 */
export function evaluate(plan: Plan, index: number): Evaluation {
  const options = optionsAt(plan, index)
  const draft = new Draft(plan.job, plan)
  let system = systemFor(draft.job, plan.shopRules)
  const battery = options.find((o) => o.battery)?.battery ?? null
  if (battery) draft.swap(battery)
  for (const { steps } of options) for (const { ref, supply } of steps) draft.take(ref, [], supply, system)
  let findings: Finding[] = []
  for (let round = 0; round < mostRounds; round++) {
    system = systemFor(draft.job, plan.shopRules)
    findings = findingsOf(system)
    system.scene.begin(new Map())
    const left = findings.filter((finding) => inTheWayOf(finding) && !isAccepted(finding))
    const next = left.flatMap((finding) => {
      // An option that was decided is not undone by what follows from it: the battery stays, the link stays.
      const ref = finding.remedies.find((r) => canTry(r) && mayFollow(r, draft.steps, round, plan))
      return ref ? [{ ref, id: finding.id }] : []
    })
    // What nothing may follow on by now stays: the rest would be done in vain.
    if (next.length === 0 || (round > 0 && next.length < left.length)) break
    const unlike = next.filter(({ ref }, i) => next.findIndex((other) => sameRemedy(other.ref, ref)) === i)
    for (const { ref } of unlike) draft.take(ref, next.filter((other) => sameRemedy(other.ref, ref)).map((other) => other.id), null, system)
  }
  const inTheWay = findings.filter((finding) => inTheWayOf(finding) && !isAccepted(finding))
  const settles = inTheWay.length === 0
  const steps = withoutDoubles(draft.steps).map((step) => ({ ...step, settles: settledBy(step, plan.before, findings) }))
  return {
    index, job: draft.job, steps, battery, settles, inTheWay,
    open: findings.filter((finding) => finding.verdict === 'measure-first'),
    accepted: findings.filter(isAccepted).map((finding) => finding.remedies[0]!),
    name: nameOf(options, steps), figures: settles ? figuresOf(plan, draft.job, steps, battery, system) : null,
  }
}

/** Remedies that only a decision of the plan may bring: they choose another arrangement. */
const decisions: readonly RemedyRef['id'][] = ['cold.heater', 'cold.warmer-place', 'dcdc.add', 'link.duty', 'link.cable', 'link.unjoined', 'alternator.limit-current', 'mixed.separate', 'mixed.conditions', 'battery.more-parallel', 'charger.replace']
/** Whether a remedy may be taken up on the way: never one that another axis has decided, nor a second arrangement of the same part. */
const mayFollow = (ref: RemedyRef, steps: readonly Step[], round: number, { axes }: Plan): boolean =>
  !decisions.includes(ref.id) || (round <= 1 && !steps.some((step) => step.ref.on === ref.on) && !(ref.id.startsWith('cold.') && axes.some((axis) => axis.about === 'place')))

/** What stood in the way and does not any more, where a step was named as its remedy; and what it was taken up for on the way. */
export function settledBy(step: Step, before: readonly Finding[], after: readonly Finding[]): string[] {
  const still = new Set(after.filter(inTheWayOf).map((finding) => `${finding.id}@${finding.on}`))
  const settled = before.filter((finding) => !still.has(`${finding.id}@${finding.on}`) && finding.remedies.some((ref) => sameRemedy(ref, step.ref)))
  return [...new Set([...settled.map((finding) => finding.id), ...step.settles])]
}

/** What followed and weighs so much that it belongs to the name. */
const namesToo: readonly RemedyRef['id'][] = ['battery.more-parallel', 'inverter.limit', 'charger.replace']

/** What it is, in words: its decisions first, then what followed. */
function nameOf(options: readonly Option[], steps: readonly Step[]): string {
  const decided = options.map((o) => o.words).filter((words) => words !== '')
  const followed = steps.filter((step) => !options.some((o) => o.steps.some((s) => sameRemedy(s.ref, step.ref)))).map((step) => inSentence(step.label))
  const weighty = steps.filter((step) => namesToo.includes(step.ref.id) && !options.some((o) => o.steps.some((s) => sameRemedy(s.ref, step.ref)))).map((step) => inSentence(step.label))
  const words = [...decided, ...(decided.length === 0 ? followed : weighty)]
  const name = words.length === 0 ? 'as it is' : words.slice(0, 5).join(', ')
  return name[0]!.toUpperCase() + name.slice(1)
}

/** Runs of a plan that were carried out, by system and inputs: combinations that come to the same in time share one. */
const runsOf = new WeakMap<Plan, Map<string, Totals>>()

/** Totals of three days of ordinary use from the shop's low charge. */
export function useOf(plan: Plan, job: JobDocument, system: System): Totals {
  const mainsH = Math.max(0, ...Object.values(job.chargers).map((charger) => charger.hours?.value ?? 0))
  const plant = plantFrom(system, 'new')
  const inputs = { ...inputsOf(job, 'driving-day', plan.shopRules), days: runDays, mainsH }
  const runs = runsOf.get(plan) ?? new Map<string, Totals>()
  runsOf.set(plan, runs)
  const key = JSON.stringify([{ ...plant, name: '', assumed: [] }, inputs])
  const totals = runs.get(key) ?? totalsOf('driving-day', plant, inputs, null, 60)
  runs.set(key, totals)
  return totals
}

/** The batteries of an answer: those of the shelf it takes instead, or the job's own candidate. */
export const bankParts = ({ job, shelf }: Plan, battery: Battery | null): ListedPart[] =>
  battery ? [shelfPart(battery.part, battery.parallel)] : batteries(job, shelf, (job.candidate.parallel?.value ?? 1) * (job.candidate.series?.value ?? 1))

export function figuresOf(plan: Plan, job: JobDocument, steps: readonly Step[], battery: Battery | null, system: System): Figures {
  const totals = useOf(plan, job, system)
  const bank = bankParts(plan, battery)
  const parts = [...bank, ...steps.flatMap((step) => step.parts)]
  const partsCost = parts.reduce((sum, part) => sum + (part.price ?? 0) * part.quantity, 0)
  const hours = steps.reduce((sum, step) => sum + step.hours, 0)
  return {
    partsCost, hours, cost: partsCost + hours * resolveRules(plan.shopRules, job.rules).labourPerH, unpriced: parts.filter((part) => part.price === null).length,
    hoursToFull: totals.fullAfterH, alternatorPeakC: totals.alternatorPeakC, changes: steps.length + (battery ? 1 : 0), unseen: steps.filter((step) => restsOnUnseen.includes(step.ref.id)).length, unservedAh: totals.unservedAh,
  }
}

/** Remedies that rest on a place or a strength that was not surveyed. */
const restsOnUnseen: readonly RemedyRef['id'][] = ['cold.warmer-place', 'place.move', 'place.carry', 'dcdc.move', 'place.dry']

/** Whether one answer is at least as good in everything, and better in something. One that rests on something unseen never beats one that does not. */
export function beats(a: Figures, b: Figures): boolean {
  const rows = [[a.cost, b.cost, 1], [a.hoursToFull ?? 999, b.hoursToFull ?? 999, 0.1], [a.alternatorPeakC ?? 0, b.alternatorPeakC ?? 0, 0.5], [a.changes, b.changes, 0], [a.unseen, b.unseen, 0]] as const
  return rows.every(([x, y, by]) => x <= y + by) && rows.some(([x, y, by]) => x < y - by)
}

/** Answers shown at most. */
export const mostAnswers = 8

/** What is kept of a combination while the search goes on: enough to choose by. */
export interface Outcome {
  readonly index: number
  /** Null where something still stands in the way. */
  readonly figures: Figures | null
  /** The same steps with the same parts have the same key. */
  readonly key: string
  /** How far from settling the job: 0 when nothing stands in the way. */
  readonly short: number
}

export const outcomeOf = (e: Evaluation): Outcome => ({
  index: e.index, figures: e.figures,
  key: JSON.stringify([e.steps.map((s) => JSON.stringify([s.ref, s.parts.map((p) => p.code)])).sort(), e.battery?.part.code, e.battery?.parallel]),
  short: e.settles ? 0 : e.inTheWay.reduce((sum, finding) => sum + (finding.verdict === 'does-not-suit' ? 10 : 1), 0) * 100 + e.steps.length,
})

/**
 * The outcomes that no other beats on cost, hours to full, alternator peak temperature and number of changes, the cheapest
 * first; the same set of steps counts once. Those that leave loads unserved stand back where others serve them. Of more
 * than eight, those that are best at something stay, then the cheapest.
 */
export function bestOf(outcomes: readonly Outcome[]): Outcome[] {
  const seen = new Set<string>()
  const settled = outcomes.filter((o) => o.figures && seen.size < seen.add(o.key).size)
  const serving = settled.filter((o) => o.figures!.unservedAh < 1)
  const served = serving.length > 0 ? serving : settled
  const front = served.filter((o) => !served.some((other) => other !== o && beats(other.figures!, o.figures!))).toSorted((a, b) => a.figures!.cost - b.figures!.cost || a.index - b.index)
  if (front.length <= mostAnswers) return front
  const least = (of: (f: Figures) => number): Outcome => front.reduce((a, b) => (of(b.figures!) < of(a.figures!) ? b : a))
  const stays = new Set([least((f) => f.cost), least((f) => f.hoursToFull ?? 999), least((f) => f.alternatorPeakC ?? 0), least((f) => f.changes), least((f) => f.unseen * 1e6 + f.cost)])
  for (const o of front) if (stays.size < mostAnswers) stays.add(o)
  return front.filter((o) => stays.has(o))
}

/** Where nothing settles the job: the combination that comes nearest. Null when nothing was looked at. */
export const nearestOf = (outcomes: readonly Outcome[]): Outcome | null =>
  outcomes.reduce<Outcome | null>((a, b) => (a === null || b.short < a.short ? b : a), null)

/** Searches a share of a plan. A generator, so that whoever searches may show progress and stop: it yields each outcome as it is found. */
export function* search(plan: Plan, { of, turn }: { readonly of: number; readonly turn: number } = { of: 1, turn: 0 }): Generator<Outcome, void, void> {
  for (let index = turn; index < plan.count; index += of) yield outcomeOf(evaluate(plan, index))
}
