import { ampacityA } from '../physics/conductors'
import { partName, type JobDocument, type PartPath } from '../job/document'
import type { Range } from '../job/fields'
import { resolveRules, type RuleOverrides } from '../rules/rules'
import type { Assessment } from './assess'
import { Scene } from './scene'
import { allDayA, allDayBudgetA, availableA, compensation, completeLinks, dcdcInput, demandA, systemOf, type AlternatorLane, type ChargeUnit, type Lane, type System } from './system'
import type { Verdict } from './verdict'

/** A voltage on the ruler; a range when it is not known or swings. */
export interface Mark {
  readonly label: string
  readonly low: number
  readonly high: number
  readonly verdict: Verdict
  /** Key of the check it belongs to. */
  readonly check: string
  /** Whether the range is there because the value is not known. */
  readonly unknown: boolean
}

/** Voltages of a lane against the battery's limits; one scale for all lanes of a job. V. */
export interface Ruler {
  readonly from: number
  readonly to: number
  readonly window: Range
  readonly rest: Range
  readonly absoluteV: number
  readonly bmsOverV: number
  readonly marks: readonly Mark[]
}

/** A current that bounds the lane, A; null while not known. */
export interface StackRow {
  readonly label: string
  readonly amps: number | null
  readonly kind: 'battery' | 'source' | 'limit'
}

export interface Stack {
  readonly rows: readonly StackRow[]
  /** Full width of the bars, A. */
  readonly scaleA: number
  /** Index of the smallest, which governs; null while none is known. */
  readonly governs: number | null
}

export interface LaneDrawing {
  readonly id: PartPath
  readonly name: string
  /** What it is in a line: its rating and its link. */
  readonly about: string
  readonly ruler: Ruler
  readonly stack: Stack
}

/**
 * Voltage ruler and current stack of every lane, from the figures the checks use.
 * @param assessment of the same job and rules: its verdicts colour the marks
 */
export function drawLanes(job: JobDocument, shopRules: RuleOverrides, assessment: Assessment): LaneDrawing[] {
  const scene = new Scene(completeLinks(job), resolveRules(shopRules, job.rules))
  const system = systemOf(scene)
  const { bank, rules } = system
  scene.begin(new Map())
  const shared: Omit<Ruler, 'marks'> = {
    from: 12 * bank.scale, to: 16 * bank.scale,
    window: [bank.lowV, bank.highV], rest: [bank.ocv(rules.restLow / 100), bank.ocv(rules.restHigh / 100)],
    absoluteV: bank.absoluteV, bmsOverV: bank.bmsOverV,
  }
  const verdictOf = new Map(assessment.checks.map((c) => [c.key, c.verdict]))
  return system.lanes.map((lane) => ({
    id: lane.id, name: partName(job, lane.kind === 'charger' ? lane.id : lane.alternator.$path), about: aboutLane(lane),
    ruler: { ...shared, marks: marksOf(lane, system, verdictOf) },
    stack: stackOf(lane, system),
  }))
}

const linkWords = { direct: 'straight to the house bank', vsr: 'through a voltage-sensed relay', solenoid: 'through an ignition solenoid', diode: 'through a diode isolator', dcdc: 'through a DC-DC charger' } as const

function aboutLane(lane: Lane): string {
  const unit = lane.kind === 'charger' ? lane.charger : lane.alternator
  const amps = unit.$settled('ratedA') ? `${unit.ratedA} A` : 'rating not known'
  if (lane.kind === 'charger') return `${amps} · mains`
  const volts = lane.alternator.nominalV === '12' ? '' : `${lane.alternator.nominalV} V · `
  return `${volts}${amps} · ${lane.link.$settled('kind') ? linkWords[lane.link.kind] : 'link not known'}`
}

type Verdicts = ReadonlyMap<string, Verdict>

function marksOf(lane: Lane, system: System, verdicts: Verdicts): Mark[] {
  if (lane.kind === 'charger') return stageMarks(lane.charger, system, verdicts)
  return lane.link.kind === 'dcdc' ? stageMarks(lane.link, system, verdicts) : alternatorMarks(lane, verdicts)
}

const mark = (verdicts: Verdicts, label: string, [low, high]: Range, check: string, unknown = low !== high): Mark =>
  ({ label, low, high, check, unknown, verdict: verdicts.get(check) ?? 'suits' })

function stageMarks(unit: ChargeUnit, { bank, one }: System, verdicts: Verdicts): Mark[] {
  const key = (id: string): string => `${id}@${unit.$path}`
  const absorption = unit.$range('absorptionV')
  const marks = [mark(verdicts, 'absorb', absorption, key('charger.absorption'))]
  if (unit.floatMode === 'on') marks.unshift(mark(verdicts, 'float', unit.$range('floatV'), key('charger.float')))
  if (unit.equaliseStage === 'switchable' || unit.equaliseStage === 'fixed') {
    marks.push(mark(verdicts, 'equalise', unit.$range('equaliseV'), key('charger.equalise')))
  }
  if (unit.compensation === 'switchable' || unit.compensation === 'fixed') {
    const at = (celsius: number): Range => {
      const { volts } = compensation(unit, bank, celsius)
      return [absorption[0] + volts, absorption[1] + volts]
    }
    const check = key('charger.temperature-compensation')
    marks.push(mark(verdicts, 'in the cold', at(one.place.coldestC), check), mark(verdicts, 'in the heat', at(one.place.hottestC), check))
  }
  return marks
}

function alternatorMarks({ alternator, link, id }: AlternatorLane, verdicts: Verdicts): Mark[] {
  const drop = link.kind === 'diode' ? link.$range('dropV') : [0, 0] as const
  const key = (check: string): string => `${check}@${id}`
  const [low, high] = alternator.$range('regulatorV')
  const marks: Mark[] = []
  if (alternator.regulator === 'computer') {
    const swing: Range = [alternator.lowestV - drop[1], alternator.highestV - drop[0]]
    marks.push(mark(verdicts, 'swings', swing, key('alternator.computer-controlled'), false))
  }
  marks.push(mark(verdicts, 'at the battery', [low - drop[1], high - drop[0]], key('alternator.voltage')))
  if (link.kind === 'vsr') {
    marks.unshift(mark(verdicts, 'opens', link.$range('opensV'), key('link.vsr-never-opens')), mark(verdicts, 'closes', link.$range('closesV'), key('link.vsr-never-closes')))
  }
  return marks
}

function stackOf(lane: Lane, system: System): Stack {
  const { scene, bank, rules } = system
  const row = (label: string, kind: StackRow['kind'], amps: () => number): StackRow => {
    scene.begin(new Map())
    const value = amps()
    return { label, kind, amps: scene.missing === null ? value : null }
  }
  const rows: StackRow[] = []
  if (lane.kind === 'charger') {
    rows.push(row('charger gives', 'source', () => lane.charger.ratedA))
  } else if (lane.link.kind === 'dcdc') {
    rows.push(row('DC-DC gives', 'source', () => lane.link.ratedA))
    rows.push(row('alternator all day', 'source', () => (allDayBudgetA(lane.alternator, rules) * lane.link.ratedA) / dcdcInput(lane, system).amps))
  } else {
    rows.push(row('battery takes', 'battery', () => demandA(lane, rules.lowSoc / 100, system)))
    rows.push(row('alternator gives', 'source', () => availableA(lane.alternator, 'cruise', rules)))
    rows.push(row('alternator all day', 'source', () => allDayA(lane.alternator, 'cruise', rules)))
  }
  rows.push(row('battery recommends', 'battery', () => bank.recommendedA), row('battery at most', 'battery', () => bank.largestA))
  for (const cable of lane.cables) {
    rows.push(row('cable', 'limit', () => ampacityA(cable.areaMm2, Number(cable.insulationC))), row('fuse', 'limit', () => cable.fuseA))
    if (cable.$ref.part.connectorA) rows.push(row('plug', 'limit', () => cable.connectorA))
  }
  scene.begin(new Map())
  const known = rows.flatMap((r, index) => (r.amps === null ? [] : [{ amps: r.amps, index }]))
  const least = known.length === 0 ? null : known.reduce((a, b) => (b.amps < a.amps ? b : a))
  const widest = rows.filter((r) => r.label !== 'battery takes').flatMap((r) => r.amps ?? [])
  return { rows, governs: least?.index ?? null, scaleA: Math.max(1, ...widest) }
}
