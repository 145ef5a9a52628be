import { elementAt } from '#core/collections/held'
import { joinText } from '#core/units/format'
import type { Facts } from '#core/system/facts'
import { factsOf, usualSystem, ifKnown, type ShopSettings, type System } from '#core/system/system'
import type { Write } from '#core/units/format'
import { partName, type JobDocument, type PartPath } from '#core/job/document'
import { type Range } from '#core/job/fields'
import type { Assessment } from '#core/assessment/assess'
import type { CheckId } from '#core/assessment/checks/index'
import { keyOf } from '#core/assessment/result'
import { allDayA, allDayBudget, availableA } from '#core/system/alternators'
import { cableAmpacityA, nearFuseA } from '#core/system/cables'
import { arrayA, dcdcOutputA, demandA } from '#core/system/currents'
import { compensation, type AlternatorLane, type ChargeUnit, type Lane } from '#core/system/lanes'
import type { Verdict } from '#core/system/verdict'

/** A voltage on the ruler; a range when it is unknown or swings. */
export interface Mark {
  readonly label: string
  readonly low: number
  readonly high: number
  readonly verdict: Verdict
  /** Key of the check it belongs to. */
  readonly check: string
  /** Whether the range is there because the value is unknown. */
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

/** A current that bounds the lane, A; null while unknown. */
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
  /** Its description in one line: its rating and its link. */
  readonly about: string
  readonly ruler: Ruler
  readonly stack: Stack
}

/**
 * Voltage ruler and current stack of every lane, from the figures the checks use.
 * @param assessment of the same job and rules: its verdicts colour the marks
 */
export function drawLanes(job: JobDocument, shop: ShopSettings, assessment: Assessment): LaneDrawing[] {
  const facts = factsOf(job, shop)
  const system = usualSystem(facts)
  const { bank, rules } = system
  const shared: Omit<Ruler, 'marks'> = {
    from: 12 * bank.scale,
    to: 16 * bank.scale,
    window: [bank.lowV, bank.highV],
    rest: [bank.ocv(rules.restLow / 100), bank.ocv(rules.restHigh / 100)],
    absoluteV: bank.absoluteV,
    bmsOverV: bank.bmsOverV,
  }
  const verdictOf = new Map(assessment.checks.map((c) => [c.key, c.verdict]))
  return system.lanes.map((lane, place) => ({
    id: lane.id,
    name: partName(job, lane.kind === 'alternator' ? lane.alternator.$path : lane.id),
    about: aboutLane(lane, system.q),
    ruler: { ...shared, marks: marksOf(lane, system, verdictOf) },
    stack: stackOf(lane, place, facts),
  }))
}

const linkWords = {
  direct: 'directly to the house bank',
  vsr: 'through a voltage-sensed relay',
  solenoid: 'through an ignition solenoid',
  diode: 'through a diode isolator',
  switch: 'through a battery switch',
  duty: 'through a duty-cycling relay',
  dcdc: 'through a DC-DC charger',
  none: 'not connected',
} as const
const sourceWords = { wind: 'wind', hydro: 'water', shaft: 'shaft' } as const

function aboutLane(lane: Lane, q: Write): string {
  switch (lane.kind) {
    case 'charger':
      return `${ratingOf(q, lane.charger, 'ratedA')} · mains`
    case 'solar':
      return joinText(
        `${ratingOf(q, lane.solar, 'panelW', lane.solar.series * lane.solar.parallel)} of panels · `,
        lane.solar.$settled('controller') ? lane.solar.controller.toUpperCase() : 'controller unknown',
      )
    case 'source':
      return joinText(
        `${ratingOf(q, lane.source, 'largestA')} · `,
        lane.source.$settled('kind') ? sourceWords[lane.source.kind] : 'kind unknown',
      )
    case 'alternator': {
      const volts = lane.alternator.nominalV === '12' ? '' : `${lane.alternator.nominalV} V · `
      return joinText(
        `${volts}${ratingOf(q, lane.alternator, 'ratedA')} · `,
        lane.link.$settled('kind') ? linkWords[lane.link.kind] : 'link unknown',
      )
    }
  }
}

function ratingOf<F extends string>(
  q: Write,
  view: { $settled(field: string): boolean } & Readonly<Record<F, number>>,
  field: F,
  times = 1,
): string {
  if (!view.$settled(field)) return 'rating unknown'
  return q(view[field] * times, field === 'panelW' ? 'W' : 'A')
}

type Verdicts = ReadonlyMap<string, Verdict>

function marksOf(lane: Lane, system: System, verdicts: Verdicts): Mark[] {
  switch (lane.kind) {
    case 'charger':
      return stageMarks(lane.charger, system, verdicts)
    case 'solar':
      return stageMarks(lane.solar, system, verdicts, 'solar.voltage')
    case 'source':
      return [mark(verdicts, 'holds', lane.source.$range('regulatorV'), keyOf('source.voltage', lane.id))]
    case 'alternator':
      return lane.link.kind === 'dcdc'
        ? stageMarks(lane.link, system, verdicts)
        : alternatorMarks(lane, verdicts)
  }
}

const mark = (
  verdicts: Verdicts,
  label: string,
  [low, high]: Range,
  check: string,
  unknown = low !== high,
): Mark => ({ label, low, high, check, unknown, verdict: verdicts.get(check) ?? 'suits' })

/** @param checkedBy the one check of all its stages; each has its own where none is named */
function stageMarks(
  unit: ChargeUnit,
  { bank, one }: System,
  verdicts: Verdicts,
  checkedBy?: CheckId,
): Mark[] {
  const key = (id: CheckId): string => keyOf(id, unit.$path)
  const absorption = unit.$range('absorptionV')
  const marks = [mark(verdicts, 'absorb', absorption, key(checkedBy ?? 'charger.absorption'))]
  if (unit.floatMode === 'on')
    marks.unshift(mark(verdicts, 'float', unit.$range('floatV'), key(checkedBy ?? 'charger.float')))
  if (unit.equaliseStage === 'switchable' || unit.equaliseStage === 'fixed') {
    marks.push(mark(verdicts, 'equalise', unit.$range('equaliseV'), key('charger.equalise')))
  }
  if (unit.compensation === 'switchable' || unit.compensation === 'fixed') {
    const at = (celsius: number): Range => {
      const { volts } = compensation(unit, bank, celsius)
      return [absorption[0] + volts, absorption[1] + volts]
    }
    const check = key('charger.temperature-compensation')
    marks.push(
      mark(verdicts, 'in the cold', at(one.place.coldestC), check),
      mark(verdicts, 'in the heat', at(one.place.hottestC), check),
    )
  }
  return marks
}

function alternatorMarks({ alternator, link, id }: AlternatorLane, verdicts: Verdicts): Mark[] {
  const drop = link.kind === 'diode' ? link.$range('dropV') : ([0, 0] as const)
  const key = (check: CheckId): string => keyOf(check, id)
  const [low, high] = alternator.$range('regulatorV')
  const marks: Mark[] = []
  if (alternator.regulator === 'computer') {
    const swing: Range = [alternator.lowestV - drop[1], alternator.highestV - drop[0]]
    marks.push(mark(verdicts, 'swings', swing, key('alternator.computer-controlled'), false))
  } else
    marks.push(mark(verdicts, 'at the battery', [low - drop[1], high - drop[0]], key('alternator.voltage')))
  if (link.kind === 'vsr') {
    marks.unshift(
      mark(verdicts, 'opens', link.$range('opensV'), key('link.vsr-never-opens')),
      mark(verdicts, 'closes', link.$range('closesV'), key('link.vsr-never-closes')),
    )
  }
  return marks
}

function stackOf(lane: Lane, place: number, facts: Facts): Stack {
  const row = <L extends Lane>(
    _of: L,
    label: string,
    kind: StackRow['kind'],
    amps: (lane: L, system: System) => number | null,
  ): StackRow => ({
    label,
    kind,
    amps: ifKnown(facts, (system) => amps(system.lanes[place] as L, system)),
  })
  const rows = [
    ...sourceRows(lane, row),
    row(lane, 'battery recommends', 'battery', (_, { bank }) => bank.recommendedA),
    row(lane, 'battery at most', 'battery', (_, { bank }) => bank.largestA),
    ...lane.cables.flatMap((cable, i) => [
      row(lane, 'cable', 'limit', (own) => cableAmpacityA(elementAt(own.cables, i))),
      row(lane, 'fuse', 'limit', (own) => nearFuseA(elementAt(own.cables, i)) || null),
      ...(cable.connectorA === null
        ? []
        : [row(lane, 'plug', 'limit', (own) => elementAt(own.cables, i).connectorA)]),
    ]),
  ]
  const known = rows.flatMap(({ amps }, index) => (amps === null ? [] : [{ amps, index }]))
  const least = known.length === 0 ? null : known.reduce((a, b) => (b.amps < a.amps ? b : a))
  const widest = rows
    .filter(({ label }) => label !== 'battery would accept')
    .flatMap(({ amps }) => amps ?? [])
  return { rows, governs: least?.index ?? null, scaleA: Math.max(1, ...widest) }
}

type MakeRow = <L extends Lane>(
  lane: L,
  label: string,
  kind: StackRow['kind'],
  amps: (lane: L, system: System) => number | null,
) => StackRow

const contactWords: Partial<Record<AlternatorLane['link']['kind'], string>> = {
  diode: 'isolator',
  switch: 'switch',
}

/** The output and limits of the source. */
function sourceRows(lane: Lane, row: MakeRow): StackRow[] {
  switch (lane.kind) {
    case 'charger':
      return [row(lane, 'charger output', 'source', ({ charger }) => charger.ratedA)]
    case 'source':
      return [row(lane, 'source output', 'source', ({ source }) => source.largestA)]
    case 'solar':
      return [
        row(lane, 'panel output', 'source', ({ solar }, { bank }) => arrayA(solar, bank.lowV)),
        row(lane, 'controller', 'limit', ({ solar }) => solar.ratedA),
      ]
    case 'alternator':
      return lane.link.kind === 'dcdc' ? dcdcRows(lane, row) : straightRows(lane, row)
  }
}

const dcdcRows = (lane: AlternatorLane, row: MakeRow): StackRow[] => [
  row(lane, 'DC-DC output', 'source', ({ link }) => link.ratedA),
  row(lane, 'alternator over a drive', 'source', (own, system) =>
    dcdcOutputA(own, allDayBudget(own.alternator, system.rules, system.q).amps, own.link.absorptionV, system),
  ),
]

const straightRows = (lane: AlternatorLane, row: MakeRow): StackRow[] => [
  row(lane, 'battery would accept', 'battery', (own, system) =>
    demandA(own, system.rules.lowSoc / 100, system),
  ),
  row(lane, 'alternator output', 'source', ({ alternator }, { rules }) =>
    availableA(alternator, 'cruise', rules),
  ),
  row(lane, 'alternator all day', 'source', ({ alternator }, { rules }) =>
    allDayA(alternator, 'cruise', rules),
  ),
  ...(lane.link.relayA === null
    ? []
    : [row(lane, contactWords[lane.link.kind] ?? 'relay', 'limit', ({ link }) => link.relayA)]),
]
