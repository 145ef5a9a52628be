import { fieldAt, partName, type FieldPath, type JobDocument, type PartPath } from '#core/job/document'
import type { Field } from '#core/job/fields'
import { resolveRules, type RuleOverrides } from '#core/rules/rules'
import { formatQuantity, inSentence } from '#core/units/format'
import type { Unit } from '#core/units/units'
import { allChecks } from '#core/assessment/checks/index'
import { mid, type Check, type Compared, type Judgement, type Setting, type Subjects } from './check'
import { joinRemedies, type RemedyRef } from '#core/remedies/catalogue'
import { Scene, type Input, type Origin } from '#core/system/scene'
import { completeLinks, systemOf, type System } from '#core/system/system'
import { explore, fewScenes, manyScenes, type Band, type Deciding } from '#core/system/unknowns'
import { verdictWords, worst, type Verdict } from '#core/system/verdict'

/** One check of one part, judged. */
export interface CheckResult {
  /** `id` of the check and path of the part: one of a kind in an assessment. */
  readonly key: string
  readonly id: string
  readonly title: string
  readonly on: PartPath
  readonly subject: string
  /** Path of the charger or link whose lane it belongs to; null for the battery's own. */
  readonly lane: PartPath | null
  readonly verdict: Verdict
  readonly compared: readonly [Compared, Compared]
  readonly limit: Origin
  readonly formula: string
  readonly summary: string
  readonly why: string
  readonly remedies: readonly RemedyRef[]
  readonly cautions: readonly string[]
  readonly settings: readonly Setting[]
  /** Everything the check read, with how each is known. */
  readonly inputs: readonly Input[]
  /** Unknowns on which the verdict hangs; empty unless it is Measure first. */
  readonly deciding: readonly Deciding[]
}

/** Something to measure, with what it would settle. */
export interface Measurement {
  readonly path: FieldPath
  readonly part: string
  readonly label: string
  readonly how: string
  /** Keys of the checks it would settle whatever it turns out to be. */
  readonly settles: readonly string[]
  /** Keys of all Measure first checks it bears on. */
  readonly bearsOn: readonly string[]
}

export interface LaneResult {
  readonly id: PartPath
  readonly name: string
  readonly verdict: Verdict
  readonly checks: readonly string[]
}

export interface Assessment {
  readonly verdict: Verdict
  /** The verdict in words, with the number of changes where there are some. */
  readonly headline: string
  /** Key of the check that decides the verdict; null when there is nothing to decide. */
  readonly decidedBy: string | null
  /** What decides it, in a sentence or two. */
  readonly reason: string
  readonly checks: readonly CheckResult[]
  readonly lanes: readonly LaneResult[]
  readonly battery: Omit<LaneResult, 'id' | 'name'>
  /** What to measure next: most verdicts settled first. */
  readonly measureNext: readonly Measurement[]
  /** The changes that the Suits once changed verdicts ask for, each once. */
  readonly changes: readonly RemedyRef[]
  /** Rules this job overrides. */
  readonly overrides: RuleOverrides
}

/** The subjects a kind of check is about, in this system. */
const subjectsOf: { readonly [K in keyof Subjects]: (system: System) => readonly Subjects[K][] } = {
  battery: () => [{ name: 'New battery', path: 'candidate' }],
  device: ({ many }) => many.devices.map((device) => ({ device, name: device.$name, path: device.$path })),
  unit: ({ lanes }) => lanes.flatMap((lane): Subjects['unit'][] => {
    switch (lane.kind) {
      case 'charger': return [{ unit: lane.charger, lane, name: lane.name, path: lane.id }]
      case 'solar': return [{ unit: lane.solar, lane, name: lane.name, path: lane.id }]
      case 'alternator': return [{ unit: lane.link, lane, name: `The DC-DC on ${mid(lane.name)}`, path: lane.id }]
      case 'source': return []
    }
  }),
  alternator: ({ lanes }) => lanes.flatMap((lane) => (lane.kind === 'alternator' ? [{ lane, name: lane.name, path: lane.link.$path }] : [])),
  solar: ({ lanes }) => lanes.flatMap((lane) => (lane.kind === 'solar' ? [{ lane, name: lane.name, path: lane.id }] : [])),
  source: ({ lanes }) => lanes.flatMap((lane) => (lane.kind === 'source' ? [{ lane, name: lane.name, path: lane.id }] : [])),
  lane: ({ lanes }) => lanes.map((lane) => ({ lane, name: lane.name, path: lane.id })),
}

/**
 * Judges every check of a job. Pure: the same job and rules give the same assessment.
 * @param job a valid job document; unknown values are allowed everywhere
 * @param shopRules what the shop has changed of the default rules; the job's own changes win over it
 * @param timed results of the checks that need a run, from {@link assessAhead}, where they are worked out elsewhere; left
 * out, they are worked out here
 */
export function assess(job: JobDocument, shopRules: RuleOverrides = {}, timed: readonly CheckResult[] | null = null): Assessment {
  const system = systemFor(job, shopRules)
  const { scene } = system
  const checks = allChecks.flatMap((check) => (check.takesTime && timed ? timed.filter((known) => known.id === check.id) : judgeAll(check, system)))
  const lanes = system.lanes.map((lane) => laneResult(lane.id, lane.name, checks.filter((c) => c.lane === lane.id)))
  const own = checks.filter((c) => c.lane === null)
  const verdict = lanes.length === 0 ? worst(['measure-first', ...own.map((c) => c.verdict)]) : worst(checks.map((c) => c.verdict))
  const deciding = checks.filter((c) => c.verdict === verdict)
  const changes = changesOf(checks)
  return {
    verdict, checks, lanes, changes,
    headline: headlineOf(verdict, changes.length),
    decidedBy: verdict === 'suits' ? null : deciding[0]?.key ?? null,
    reason: reasonOf(verdict, deciding, lanes.length),
    battery: { verdict: worst(own.map((c) => c.verdict)), checks: own.map((c) => c.key) },
    measureNext: measureNext(scene.job, checks),
    overrides: job.rules,
  }
}

/** Results of the checks alone that need a run of the system: some ten to some hundred milliseconds. */
export function assessAhead(job: JobDocument, shopRules: RuleOverrides = {}): CheckResult[] {
  const system = systemFor(job, shopRules)
  return allChecks.filter((check) => check.takesTime).flatMap((check) => judgeAll(check, system))
}

/** What a check came to, without its words. */
export interface Finding {
  readonly id: string
  readonly on: PartPath
  readonly verdict: Verdict
  readonly remedies: readonly RemedyRef[]
}

/** The verdicts of every check that needs no run, without words or evidence: several times as fast as {@link assess}, and the same verdicts. */
export function findingsOf(system: System): Finding[] {
  const { scene } = system
  const findings: Finding[] = []
  for (const check of allChecks as readonly Check<keyof Subjects>[]) {
    if (check.takesTime) continue
    for (const subject of subjectsOf[check.about](system)) {
      scene.begin(new Map())
      const judgement = check.judge(subject as never, system)
      if (scene.missing === null) {
        if (judgement) findings.push({ id: check.id, on: subject.path, verdict: judgement.verdict, remedies: judgement.remedies ?? [] })
        continue
      }
      const { verdict } = explore(scene, () => check.judge(subject as never, system), manyScenes)
      scene.begin(new Map())
      if (judgement || verdict === null) findings.push({ id: check.id, on: subject.path, verdict: verdict ?? 'measure-first', remedies: verdict === null ? [] : judgement?.remedies ?? [] })
    }
  }
  return findings
}

/** The system of a job by the rules in force, for whoever judges it. */
export const systemFor = (job: JobDocument, shopRules: RuleOverrides): System => systemOf(new Scene(completeLinks(job), resolveRules(shopRules, job.rules)))

function judgeAll<K extends keyof Subjects>(check: Check<K>, system: System): CheckResult[] {
  return subjectsOf[check.about](system).flatMap((subject) => judgeOne(check, subject, system) ?? [])
}

function judgeOne<K extends keyof Subjects>(check: Check<K>, subject: Subjects[K], system: System): CheckResult | null {
  const { scene } = system
  const judge = (): Judgement | null => check.judge(subject, system)
  scene.begin(new Map(), true)
  let judgement = judge()
  const inputs = [...scene.inputs!]
  const explored = scene.missing === null ? { verdict: judgement?.verdict ?? 'suits', deciding: [] } : explore(scene, judge, check.takesTime ? fewScenes : manyScenes)
  if (explored.verdict === null && judgement === null) judgement = firstSeen(explored.deciding, scene, judge)
  scene.begin(new Map())
  if (judgement === null) return null
  const open = explored.verdict === null
  return {
    key: `${check.id}@${subject.path}`, id: check.id, title: check.title, on: subject.path, subject: subject.name,
    lane: 'lane' in subject ? subject.lane.id : null,
    verdict: explored.verdict ?? 'measure-first',
    compared: judgement.compared, limit: judgement.limit, formula: judgement.formula(),
    summary: open ? openSummary(subject.name, check.title, explored.deciding, scene.job) : judgement.summary(),
    why: check.why, inputs,
    remedies: open ? [] : judgement.remedies ?? [],
    cautions: judgement.cautions?.() ?? [],
    settings: judgement.settings?.() ?? [],
    deciding: explored.deciding,
  }
}

/** A judgement from a scene in which the check does apply, for a check whose very subject is in doubt. */
function firstSeen(deciding: readonly Deciding[], scene: Scene, judge: () => Judgement | null): Judgement | null {
  for (const { path, bands } of deciding) {
    for (const band of bands) {
      scene.begin(new Map([[path, band.from]]))
      const judgement = judge()
      if (judgement) return judgement
    }
  }
  return null
}

/** How a band reads: `13.6 to 14.2 V`, or the words of an option. */
export function bandWords(band: Band, field: Field): string {
  if (field.type === 'choice') return field.options[String(band.from)] ?? String(band.from)
  const unit: Unit = field.type === 'quantity' ? field.unit : ''
  return `${formatQuantity(Number(band.from), unit).replace(/ .*/, '')} to ${formatQuantity(Number(band.to), unit)}`
}

function openSummary(subject: string, title: string, deciding: readonly Deciding[], job: JobDocument): string {
  const names = deciding.map(({ path }) => {
    const at = fieldAt(path)!
    const part = partName(job, at.partPath)
    const own = subject.toLowerCase().endsWith(part.toLowerCase())
    return `${inSentence(at.field.label)}${own ? '' : ` (${part})`}`
  })
  const list = names.length > 3 ? `${names.slice(0, 3).join(', ')} and ${names.length - 3} more` : names.join(' and ')
  if (names.length === 1 && names[0] === inSentence(title)) return `${subject}: its ${names[0]} is not measured yet, and it decides.`
  return `${subject}: ${inSentence(title)} hangs on ${list}, not known yet.`
}

const laneResult = (id: PartPath, name: string, checks: readonly CheckResult[]): LaneResult =>
  ({ id, name, verdict: worst(checks.map((c) => c.verdict)), checks: checks.map((c) => c.key) })

/** The first remedy of every Suits once changed, each once, without those that another makes needless. */
const changesOf = (checks: readonly CheckResult[]): RemedyRef[] =>
  joinRemedies(checks.flatMap(({ verdict, remedies }) => (verdict === 'suits-once-changed' && remedies[0] ? [remedies[0]] : [])))

const counted = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'] as const

function headlineOf(verdict: Verdict, changes: number): string {
  if (verdict !== 'suits-once-changed' || changes === 0) return verdictWords[verdict]
  return changes === 1 ? 'Suits once one thing is changed' : `Suits once ${counted[changes] ?? changes} things are changed`
}

function reasonOf(verdict: Verdict, deciding: readonly CheckResult[], lanes: number): string {
  if (lanes === 0) return 'No charging source is entered yet. Start the walk-round with what charges the house bank.'
  if (verdict === 'suits') return 'Every source stays inside the battery’s limits.'
  const sentences = new Map(deciding.map((c) => [c.id, c.summary]))
  return [...sentences.values()].slice(0, 2).join(' ')
}

/** Unknowns by how many open verdicts measuring each would settle. */
function measureNext(job: JobDocument, checks: readonly CheckResult[]): Measurement[] {
  const found = new Map<FieldPath, { score: number; settles: string[]; bearsOn: string[] }>()
  for (const { key, deciding } of checks) {
    for (const { path, settles } of deciding) {
      const entry = found.get(path) ?? { score: 0, settles: [], bearsOn: [] }
      entry.score += settles
      entry.bearsOn.push(key)
      if (settles === 1) entry.settles.push(key)
      found.set(path, entry)
    }
  }
  return [...found]
    .sort(([, a], [, b]) => b.score - a.score || b.bearsOn.length - a.bearsOn.length)
    .map(([path, { settles, bearsOn }]) => {
      const { field, partPath } = fieldAt(path)!
      return { path, part: partName(job, partPath), label: field.label, how: field.measure, settles, bearsOn }
    })
}
