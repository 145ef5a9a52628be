import { entryOf, firstOf, present } from '#core/collections/held'
import type { Finding } from '#core/assessment/assess'
import { FindingMemo } from '#core/assessment/memo'
import type { JobDocument } from '#core/job/document'
import { costOf, type ListedPart } from '#core/job/specified'
import { batteries, listed } from '#core/remedies/listed'
import { canTry, joinRemedies, remedyOf, sameRemedy, type RemedyRef } from '#core/remedies/catalogue'
import { resolveRules } from '#core/rules/rules'
import { inputsOf } from '#core/simulation/inputs'
import type { Plant } from '#core/simulation/plant'
import { plantFrom } from '#core/simulation/plant-of-job'
import { ifSolvable } from '#core/physics/unsolvable'
import { totalsOf } from '#core/simulation/runs'
import type { Totals } from '#core/simulation/totals'
import { dayAway } from '#core/system/energy'
import { factsOf, usualSystem, type System } from '#core/system/system'
import { capital, inSentence } from '#core/units/format'
import { StepsCarriedOut } from './carried-out'
import { AnswerDraft, withBattery } from './draft'
import type { Battery, Option } from './option'
import { isBlocking, isAccepted } from '#core/assessment/finding'
import { optionsAt, type Plan } from './plan'
import { withoutDoubles, type AnswerStep } from './step'

/** The figures that answers are compared by. */
export interface Figures {
  readonly cost: number
  readonly partsCost: number
  readonly hours: number
  /** Things whose price is unknown. */
  readonly unpriced: number
  /** From the shop's low charge to full in ordinary use, h; null if three days do not fill it. */
  readonly hoursToFull: number | null
  /** Missing charge per day until it fills, Ah; null if it gets full, or for a bank without lithium. */
  readonly moreAhADay: number | null
  /** Charge it reaches in those three days, 0 to 1. */
  readonly endsAt: number
  /** Hottest the alternator's case gets in those three days, °C; null without one. */
  readonly alternatorPeakC: number | null
  /** Power of inverters that is given up, W. */
  readonly givesUpW: number
  /** Days away from mains; Infinity if the sources cover the use. */
  readonly daysAway: number
  readonly changes: number
  /** Steps that rest on something nobody has seen yet: a warmer place, a stronger floor. */
  readonly unseen: number
  readonly unservedAh: number
}

/** The result of one combination. */
export interface Evaluation {
  readonly index: number
  readonly job: JobDocument
  readonly name: string
  readonly steps: readonly AnswerStep[]
  /** Another battery of the shelf that takes the place of the candidate. */
  readonly battery: Battery | null
  readonly settles: boolean
  /** Findings that stay in the way, and those only a measurement decides. */
  readonly inTheWay: readonly Finding[]
  readonly open: readonly Finding[]
  /** Accepted findings on the customer's paper: remedies that change nothing in the survey. */
  readonly accepted: readonly RemedyRef[]
  readonly figures: Figures | null
}

const mostRounds = 5
/** Days of ordinary use each answer is run for. */
export const runDays = 3

/**
 * Checks combinations of one plan: common parts are checked once, and equal systems share a run.
 */
export class Evaluator {
  private readonly findings = new FindingMemo()
  private readonly runs = new Map<string, Totals | null>()
  private readonly done = new StepsCarriedOut()
  private readonly jobsWith = new Map<Battery | null, JobDocument>()
  /** The job of the plan as found. Steps take their names and supplies from it. */
  private readonly found: System
  constructor(readonly plan: Plan) {
    this.found = usualSystem(factsOf(plan.job, plan.shop))
  }

  /**
   * Carries out one combination: its options, then the remedies that these ask for, until nothing blocks the job or
   * no remedy is left. A combination that settles the job is run for three days of ordinary use.
   * @param index 0 to `plan.count` − 1
   */
  evaluate(index: number): Evaluation {
    const { plan } = this
    const options = optionsAt(plan, index)
    const battery = options.find((chosen) => chosen.battery)?.battery ?? null
    const full = this.draftOf(battery, [])
    for (const { steps } of options)
      for (const { ref, supply } of steps) full.take(ref, [], supply, this.found)
    const decided = full.steps.length
    const end = this.followUp(full)
    const {
      draft,
      findings,
      system: last,
    } = isSettled(end.findings) ? this.withoutIdle(full, { decided, battery, end }) : { draft: full, ...end }
    const inTheWay = findings.filter(isUnsettled)
    const steps = withoutDoubles(draft.steps).map((step) => ({
      ...step,
      settles: settledBy(step, plan.before, findings),
    }))
    const totals = inTheWay.length === 0 ? this.useOf(draft.job, last) : null
    return {
      index,
      job: draft.job,
      steps,
      battery,
      settles: totals !== null,
      inTheWay,
      open: findings.filter(({ verdict }) => verdict === 'measure-first'),
      accepted: findings.filter(isAccepted).map(({ remedies }) => firstOf(remedies)),
      name: nameOf(this.optionsToName(options, steps), steps),
      figures: totals && this.figuresBy(totals, { job: draft.job, steps, battery, system: last }),
    }
  }

  /** The name of a combination of which only some steps are taken: a decision whose steps are all left out goes. */
  nameWith(index: number, steps: readonly AnswerStep[]): string {
    const isTaken = ({ ref }: Option['steps'][number]): boolean =>
      steps.some((step) => sameRemedy(step.ref, ref))
    const options = optionsAt(this.plan, index).filter(
      (chosen) => chosen.steps.length === 0 || chosen.steps.some(isTaken),
    )
    return nameOf(this.optionsToName(options, steps), steps)
  }

  /** The options that name an answer, without those that keep a part which a later step changes. */
  private optionsToName(options: readonly Option[], steps: readonly AnswerStep[]): readonly Option[] {
    const { axes } = this.plan
    return options.filter((chosen) => {
      const about = present(axes.find((axis) => axis.options.includes(chosen))).about
      return chosen.steps.length > 0 || chosen.battery || !steps.some(({ ref }) => ref.on === about)
    })
  }

  /** A draft of the plan with a battery and steps that were taken before. */
  private draftOf(battery: Battery | null, steps: readonly AnswerStep[]): AnswerDraft {
    const draft = new AnswerDraft(this.jobWith(battery), this.plan.shelf, this.done)
    for (const step of steps) draft.take(step.ref, step.settles, step, this.found)
    return draft
  }

  private jobWith(battery: Battery | null): JobDocument {
    let job = this.jobsWith.get(battery)
    if (!job) this.jobsWith.set(battery, (job = withBattery(this.plan.job, battery)))
    return job
  }

  /** Without the steps that followed and that later ones made idle: a second battery can spare a smaller charger. */
  private withoutIdle(
    full: AnswerDraft,
    {
      decided,
      battery,
      end,
    }: { readonly decided: number; readonly battery: Battery | null; readonly end: Ending },
  ): Ending & { readonly draft: AnswerDraft } {
    let kept = { draft: full, ...end }
    const followed = full.steps.slice(decided)
    // One alone was asked for, and nothing came after it that could spare it.
    if (followed.length < 2) return kept
    for (const step of followed.toReversed()) {
      const left = kept.draft.steps.filter(({ ref }) => !sameRemedy(ref, step.ref))
      const draft = this.draftOf(battery, left)
      const found = this.findings.of(draft.job, this.plan.shop)
      // Mostly the finding that asked for the step blocks the job again. Then no other check is needed.
      const isMissed = end.asked.some(({ ref, id, on }) => {
        const finding = servesAlike(ref, step.ref) ? found.one(id, on) : null
        return finding !== null && isUnsettled(finding)
      })
      if (isMissed) continue
      const findings = found.all()
      if (isSettled(findings)) kept = { ...end, draft, findings, system: usualSystem(found.facts) }
    }
    return kept
  }

  /** Applies the remedies of the findings, round by round. Returns the remaining findings. */
  private followUp(draft: AnswerDraft): Ending {
    const { plan } = this
    const asked: AskedFor[] = []
    for (let round = 0; ; round++) {
      const found = this.findings.of(draft.job, plan.shop)
      const findings = found.all()
      const system = usualSystem(found.facts)
      if (round === mostRounds) return { findings, system, asked }
      const left = findings.filter(isUnsettled)
      const next = left.flatMap(({ id, on, remedies }): AskedFor[] => {
        const ref = remedies.find((one) => canTry(one) && mayFollow(one, draft.steps, round, plan))
        return ref ? [{ ref, id, on }] : []
      })
      // A finding without a remedy left stays. Further steps would not settle the job.
      if (next.length === 0 || (round > 0 && next.length < left.length)) return { findings, system, asked }
      asked.push(...next)
      for (const ref of joinRemedies(next.map((one) => one.ref))) {
        const requestedBy = next.filter((one) => servesAlike(one.ref, ref)).map(({ id }) => id)
        draft.take(ref, requestedBy, null, system)
      }
    }
  }

  /** Totals of three days of ordinary use from the shop's low charge; null where that run has no result. */
  private useOf(job: JobDocument, system: System): Totals | null {
    const mainsH = Math.max(0, ...Object.values(job.chargers).map((charger) => charger.hours?.value ?? 0))
    const plant = withoutNames(plantFrom(system, 'new'))
    const inputs = { ...inputsOf(system, 'driving-day'), days: runDays, mainsH }
    const key = JSON.stringify([plant, inputs])
    const known = this.runs.get(key)
    if (known !== undefined) return known
    const totals = ifSolvable(() => totalsOf('driving-day', plant, inputs))
    this.runs.set(key, totals)
    return totals
  }

  /** The figures of an answer, whether it settles the job or not. */
  figuresOf(answer: Carried): Figures {
    return this.figuresBy(this.useOf(answer.job, answer.system) ?? withoutResult, answer)
  }

  private figuresBy(totals: UseTotals, { job, steps, battery, system }: Carried): Figures {
    const parts = [...bankParts(this.plan, battery), ...steps.flatMap((step) => step.parts)]
    const partsCost = costOf(parts)
    const hours = steps.reduce((sum, step) => sum + step.hours, 0)
    return {
      partsCost,
      hours,
      cost: partsCost + hours * resolveRules(this.plan.shop.rules ?? {}, job.rules).labourPerH,
      unpriced: parts.filter(({ price }) => price === null).length,
      hoursToFull: totals.fullAfterH,
      moreAhADay: totals.fullAfterH === null ? ((1 - totals.endSoc) * system.bank.ah) / runDays : null,
      endsAt: totals.endSoc,
      alternatorPeakC: totals.alternatorPeakC,
      unservedAh: totals.unservedAh,
      givesUpW: givenUpW(this.plan.job, job),
      daysAway: dayAway(system).lastsDays,
      changes: steps.length - sharedMonitors(steps) + (battery ? 1 : 0),
      unseen: steps.filter(({ ref }) => remedyOf(ref).unseen).length,
    }
  }
}

/** A plant without details that change nothing in a run: names, and the order of several chargers. */
function withoutNames(plant: Plant): Plant {
  const chargers = plant.chargers.map((charger) => ({ ...charger, name: '' }))
  const written = new Map(chargers.map((charger) => [charger, JSON.stringify(charger)]))
  return {
    ...plant,
    name: '',
    assumed: [],
    chargers: chargers.toSorted((a, b) => (entryOf(written, a) < entryOf(written, b) ? -1 : 1)),
  }
}

/** A combination carried out. */
interface Carried {
  readonly job: JobDocument
  readonly steps: readonly AnswerStep[]
  readonly battery: Battery | null
  readonly system: System
}

type UseTotals = Pick<Totals, 'fullAfterH' | 'endSoc' | 'alternatorPeakC' | 'unservedAh'>
/** Of three days that cannot be calculated: they do not fill the battery. */
const withoutResult: UseTotals = { fullAfterH: null, endSoc: 0, alternatorPeakC: null, unservedAh: 0 }

/** The result of a draft. */
interface Ending {
  readonly findings: readonly Finding[]
  readonly system: System
  /** The remedies requested on the way, each with its finding. */
  readonly asked: readonly AskedFor[]
}

/** A remedy and the finding that asked for it. */
type AskedFor = { readonly ref: RemedyRef } & Pick<Finding, 'id' | 'on'>

const isUnsettled = (finding: Finding): boolean => isBlocking(finding) && !isAccepted(finding)
const isSettled = (findings: readonly Finding[]): boolean => !findings.some(isUnsettled)

/** Whether a remedy does the job of another one: it is the same, or one monitor for both. */
const servesAlike = (asked: RemedyRef, ref: RemedyRef): boolean =>
  sameRemedy(asked, ref) || Boolean(remedyOf(asked).monitors && remedyOf(ref).monitors)

/** Inverter power that is given up, W. */
const givenUpW = (before: JobDocument, after: JobDocument): number =>
  Math.max(0, inverterW(before) - inverterW(after))
const inverterW = ({ inverters }: JobDocument): number =>
  Object.values(inverters).reduce((sum, { continuousW }) => sum + (continuousW?.value ?? 0), 0)

/**
 * Whether a remedy may follow: not if another axis has decided it, and not as a second arrangement of the same
 * part. A follow-up does not undo a decided option.
 */
function mayFollow(ref: RemedyRef, steps: readonly AnswerStep[], round: number, plan: Plan): boolean {
  const { arrangement, decidedOn } = remedyOf(ref)
  if (!arrangement) return true
  const about = decidedAbout(ref, plan.job)
  if (round > 1 || steps.some((step) => decidedAbout(step.ref, plan.job) === about)) return false
  return !plan.axes.some(({ about }) => about === decidedOn)
}

/**
 * The subject of an arrangement: of a heating pad the place, though it is fitted to the battery; of an alternator
 * limit its link, so that a relay and a regulator do not both limit one alternator.
 */
function decidedAbout(ref: RemedyRef, { links }: JobDocument): string {
  const { decidedOn } = remedyOf(ref)
  if (decidedOn) return decidedOn
  const link = Object.entries(links).find(([, { from }]) => from === ref.on)
  return link ? `links/${link[0]}` : ref.on
}

/**
 * Ids of the checks that a step settles: those that blocked the job, name the step as a remedy and now suit, and
 * those that asked for it during the search.
 */
export function settledBy(step: AnswerStep, before: readonly Finding[], after: readonly Finding[]): string[] {
  const still = new Set(after.filter(({ verdict }) => verdict !== 'suits').map(({ id, on }) => `${id}@${on}`))
  const settled = before.filter(
    ({ id, on, remedies }) => !still.has(`${id}@${on}`) && remedies.some((ref) => sameRemedy(ref, step.ref)),
  )
  return [...new Set([...settled.map(({ id }) => id), ...step.settles])]
}

/** Steps beyond the first that share one monitor. */
const sharedMonitors = (steps: readonly AnswerStep[]): number =>
  Math.max(0, steps.filter(({ ref }) => remedyOf(ref).monitors).length - 1)

const mostWords = 5
/** Whether a step replaces a unit: the name of an answer always includes it. */
const isUnit = ({ id }: RemedyRef): boolean => id === 'dcdc.add' || id === 'charger.replace'

/** Its name: its decisions first, then the follow-ups. */
function nameOf(options: readonly Option[], steps: readonly AnswerStep[]): string {
  const decided = options.map(({ words }) => words).filter((words) => words !== '')
  const followed = steps.filter(
    (step) => !options.some((chosen) => chosen.steps.some(({ ref }) => sameRemedy(ref, step.ref))),
  )
  const named =
    decided.length === 0 ? followed : followed.filter(({ ref }) => remedyOf(ref).namesAnswer || isUnit(ref))
  const words = [...decided, ...named.map(({ label }) => inSentence(label))]
  return capital(words.length === 0 ? 'as it is' : words.slice(0, mostWords).join(', '))
}

/** The batteries of an answer: those of the shelf it takes instead, or the job's own candidate. */
export function bankParts({ job, shelf }: Plan, battery: Battery | null): ListedPart[] {
  if (battery) return [listed(battery.part, battery.parallel)]
  return batteries(job, shelf, (job.candidate.parallel?.value ?? 1) * (job.candidate.series?.value ?? 1))
}
