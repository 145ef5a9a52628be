import { fieldOf, present } from '#core/collections/held'
import type { CheckId } from '#core/assessment/checks/index'
import type { Setting } from '#core/assessment/check'
import { checkTopic } from '#core/assessment/checks/index'
import type { Verdict } from '#core/system/verdict'
import type { JobDocument } from '#core/job/document'
import { changedFields, type ChangedField } from '#core/job/shown'
import { asSpecified, withSpecified } from '#core/job/as-specified'
import type { ListedPart } from '#core/job/specified'
import {
  resolveRules,
  ruleCatalogue,
  type RuleId,
  type RuleOverrides,
  type ShopRules,
} from '#core/rules/rules'
import type { PaperPhoto } from './blocks'
import type { Letterhead } from '#core/quotation/terms'
import { settingsCards } from '#core/solve/settings'
import type { DisplayUnits } from '#core/units/display'
import type { CheckResult } from '#core/assessment/result'
import { factsOf, usualSystem, type ShopSettings, type System } from '#core/system/system'
import { inSentence } from '#core/units/format'
import { judgeJob } from '#core/verdict/job'

/** Everything a specification sheet is made from, as it stood when it was issued. */
export interface SheetInputs {
  /** `0417-2`: the job's number and a count. */
  readonly number: string
  readonly issuedAt: string
  readonly issuedBy: string
  readonly shop: { readonly name: string; readonly units: DisplayUnits }
  /** All shop rules in force, one value each: later defaults do not touch it. */
  readonly rules: ShopRules
  readonly job: JobDocument
  /** Left out by papers that were issued before it was kept. */
  readonly letterhead?: Letterhead
  /** Photos that the paper shows; left out for none. */
  readonly photos?: readonly PaperPhoto[]
}

/** A line of the parts list with its price. */
export interface PricedLine {
  readonly name: string
  readonly code: string
  readonly quantity: number
  readonly unit: '' | 'm'
  readonly price: number | null
  readonly total: number | null
}

/** The content of a sheet. */
export interface SheetResult {
  readonly name: string
  readonly found: { readonly verdict: Verdict; readonly headline: string; readonly reason: string }
  readonly specified: { readonly verdict: Verdict; readonly headline: string }
  readonly lines: readonly PricedLine[]
  readonly partsTotal: number
  readonly hours: number
  readonly labourPerH: number
  readonly total: number
  readonly unpriced: number
  readonly work: readonly {
    readonly label: string
    readonly on: string
    readonly settles: readonly string[]
  }[]
  readonly cards: readonly { readonly unit: string; readonly settings: readonly Setting[] }[]
  readonly protections: readonly { readonly label: string; readonly value: string }[]
  readonly accepted: readonly string[]
  readonly cautions: readonly string[]
  readonly open: readonly string[]
  /** Results of a run, and the other findings that suit, with their numbers. */
  readonly findings: readonly {
    readonly title: string
    readonly summary: string
    readonly verdict: Verdict
  }[]
  readonly differs: readonly ChangedField[]
  /** Questions on which workshops differ, with the choice for this job. */
  readonly schools: readonly { readonly question: string; readonly chosen: string; readonly own: boolean }[]
}

/** An issued specification sheet: its inputs and its result. It never changes. */
export interface Sheet {
  readonly format: 'jovial-anchor/specification'
  readonly version: 1
  readonly inputs: SheetInputs
  readonly result: SheetResult
}

/** The lines of a parts list: the same part from several steps is one line. */
export function pricedLines(parts: readonly ListedPart[]): PricedLine[] {
  const lines = new Map<string, PricedLine>()
  for (const { code, name, quantity, unit, price } of parts) {
    const key = `${code}|${name}|${price}`
    // Metres by the centimetre, as they are sold: a sum of tenths is no tenth.
    const all = Math.round(((lines.get(key)?.quantity ?? 0) + quantity) * 100) / 100
    lines.set(key, {
      name,
      code,
      quantity: all,
      unit,
      price,
      total: price === null ? null : Math.round(price * all * 100) / 100,
    })
  }
  return [...lines.values()]
}

/** Checks whose findings stand among the protections. */
const protectionChecks: ReadonlySet<string> = new Set<CheckId>([
  'battery.short-circuit',
  'alternator.load-dump',
  'source.unloaded',
  'battery.warning',
])

/** The limits of the battery, and the findings about the protections. */
const protectionsOf = ({ bank, q }: System, checks: readonly CheckResult[]): SheetResult['protections'] => [
  {
    label: 'Charge voltage',
    value: `${q(bank.lowV, 'V')} to ${q(bank.highV, 'V')}, never above ${q(bank.absoluteV, 'V')}`,
  },
  { label: 'BMS cuts charging at', value: q(bank.bmsOverV, 'V') },
  { label: 'BMS cuts discharge at', value: q(bank.bmsUnderV, 'V') },
  { label: 'No charging below', value: q(bank.coldLimitC, '°C') },
  { label: 'Largest charge current', value: q(bank.largestA, 'A') },
  { label: 'Largest continuous discharge', value: q(bank.continuousA, 'A') },
  ...checks
    .filter(({ id }) => protectionChecks.has(id))
    .map((check) => ({ label: check.title, value: check.summary })),
]

/** The schools that the job was judged by. */
const schoolsOf = (rules: ShopRules, job: JobDocument): SheetResult['schools'] =>
  (Object.keys(ruleCatalogue) as RuleId[]).flatMap((rule) => {
    const catalogued = ruleCatalogue[rule]
    return catalogued.kind === 'school'
      ? [
          {
            question: catalogued.label,
            chosen: fieldOf(catalogued.options as Readonly<Record<string, string>>, rules[rule] as string),
            own: Object.hasOwn(job.rules, rule),
          },
        ]
      : []
  })

/**
 * Works a sheet out from its inputs alone: the same inputs give the same sheet.
 * @throws when the job has nothing specified
 */
export function sheetOf(inputs: SheetInputs): Sheet {
  const { job, rules, shop } = inputs
  const { specified } = job
  if (!specified) throw new Error('Nothing is specified for this job')
  const found = withSpecified(job, null)
  const done = asSpecified(job)
  // Every rule is stored by value, so that later changes of the job, the shop or a default do not matter.
  const settings: ShopSettings = { rules, units: shop.units }
  const whole = judgeJob(job, settings)
  const [before, after] = [whole.found, present(whole.specified)]
  const checks = [...present(whole.specifiedAssessment).checks, ...(whole.wiring?.checks ?? [])]
  const system = usualSystem(factsOf(done, settings))
  const lines = pricedLines([...specified.battery, ...specified.steps.flatMap((step) => step.parts)])
  const hours = specified.steps.reduce((sum, step) => sum + step.hours, 0)
  const partsTotal = lines.reduce((sum, line) => sum + (line.total ?? 0), 0)
  const result: SheetResult = {
    name: specified.name,
    found: { verdict: before.verdict, headline: before.headline, reason: before.reason },
    specified: { verdict: after.verdict, headline: after.headline },
    lines,
    partsTotal,
    hours,
    labourPerH: rules.labourPerH,
    total: partsTotal + hours * rules.labourPerH,
    unpriced: lines.filter((line) => line.price === null).length,
    work: specified.steps.map(({ label, on, settles }) => ({ label, on, settles: settles.map(checkTopic) })),
    cards: settingsCards(system),
    protections: protectionsOf(system, checks),
    accepted: specified.accepted,
    cautions: [...new Set(checks.flatMap((check) => check.cautions))],
    open: after.measureNext.map((m) => `${m.part}: ${inSentence(m.label)}. ${m.how}`),
    findings: checks.map(({ subject, title, summary, verdict }) => ({
      title: `${subject}: ${inSentence(title)}`,
      summary,
      verdict,
    })),
    differs: changedFields(found, done, specified.changes, system.q),
    schools: schoolsOf(rules, job),
  }
  return { format: 'jovial-anchor/specification', version: 1, inputs, result }
}

/** Inputs of a paper for a job unchanged: the rules in force are resolved, the job's own over the shop's. */
export const sheetInputs = (
  job: JobDocument,
  shop: {
    readonly name: string
    readonly units: DisplayUnits
    readonly rules: RuleOverrides
    readonly letterhead: Letterhead
  },
  head: Pick<SheetInputs, 'number' | 'issuedAt' | 'issuedBy'>,
): SheetInputs & { readonly letterhead: Letterhead } => ({
  ...head,
  shop: { name: shop.name, units: shop.units },
  rules: resolveRules(shop.rules, job.rules),
  job,
  letterhead: shop.letterhead,
})
