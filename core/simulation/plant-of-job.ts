import { elementAt, present } from '#core/collections/held'
import { joinText } from '#core/units/format'
import { airAroundC, foldsBack, heatOf, measuredHeat, shaftRpm } from '#core/system/alternators'
import { cableOhm, type AlternatorLane } from '#core/system/lanes'
import { type View } from '#core/system/scene'
import { type System, type ShopSettings, factsOf, usualSystem } from '#core/system/system'
import { generatorShare, leadHealth, loadA, sharesBus } from '#core/system/energy'
import { fieldAt, partName, type JobDocument } from '#core/job/document'
import { caseLimitC } from '#core/physics/alternator'
import { c20OverC10, leadLeakA } from '#core/physics/lead'
import type {
  AlternatorPlant,
  LeadPlant,
  LfpPlant,
  LinkPlant,
  Plant,
  SidePlant,
  SolarPlant,
  Stages,
} from './plant'

/**
 * Which batteries the house has in a run: the lead that is there now, or the battery in question (with lead
 * where it stays).
 */
export type Fitted = 'old' | 'new'

/**
 * The plant of a system as its scene has it. Values that are neither known nor assumed there are taken as
 * usual, in the middle of their plausible range or as the first of their options, and named in `assumed`.
 */
export function plantFrom(asked: System, fitted: Fitted): Plant {
  const system = asked.asUsual()
  const plant = partsOfPlant(system, fitted)
  const { taken, facts } = system.scene
  const words = (path: string): string => {
    const at = fieldAt(path)
    return at ? `${partName(facts.job, at.partPath)}: ${at.field.label.toLowerCase()}` : path
  }
  const guessed = alternatorLanes(system).find(
    ({ alternator }) => heatOf(alternator) && !measuredHeat(alternator),
  )
  return {
    ...plant,
    assumed: [
      ...[...present(taken)].map((path) => `${words(path)} is unknown, so a typical value is used`),
      ...(guessed ? [heatWords(guessed.alternator)] : []),
    ],
  }
}

const heatWords = (alternator: View<'alternators'>): string =>
  joinText(
    `Alternator heat without case readings: time constant ${alternator.tauMin} min, `,
    `air ${airAroundC(alternator)} °C around it, limit ${caseLimitC} °C`,
  )

const alternatorLanes = ({ lanes }: System): AlternatorLane[] =>
  lanes.filter((lane) => lane.kind === 'alternator')

/** The system of a job as the simulation sees it. @see plantFrom */
export const plantOf = (job: JobDocument, shop: ShopSettings, fitted: Fitted): Plant =>
  plantFrom(usualSystem(factsOf(job, shop)), fitted)

function partsOfPlant(system: System, fitted: Fitted): Omit<Plant, 'assumed'> {
  const { rules, one, many, bank, lanes } = system
  const houseV = fitted === 'new' ? bank.nominalV : Number(one.houseBank.nominalV)
  const hybrid = sharesBus(system)
  const lead = houseLeadOf(system)
  const hours = Array.from({ length: 24 }, (_, h) => h)
  const loads = loadsByHour(system)
  const listed = many.loads.length > 0
  const counted = one.use.$settled('dailyAh') || !listed
  const dailyAh = counted ? one.use.dailyAh : 0
  const scaleUp = counted && listed ? dailyAh / Math.max(0.01, loads.totalAh) : 1
  return {
    name: fitted === 'new' ? (one.candidate.$ownName ?? 'the new battery') : 'the old bank',
    lfp: fitted === 'new' ? lfpOf(system) : null,
    houseLead: fitted === 'old' || hybrid ? lead : null,
    sides: alternatorLanes(system).map((lane) => sideOf(lane, system)),
    chargers: chargersOf(system),
    generatorShare: generatorShare(system),
    solar: lanes.flatMap((lane) =>
      lane.kind === 'solar'
        ? [{ name: lane.name, ...solarOf(lane.solar, system), ohm: cableOhm(lane, rules) }]
        : [],
    ),
    sources: sourcesOf(system),
    dcA: hours.map((h) => (listed ? elementAt(loads.dcA, h) * scaleUp : dailyAh / 24)),
    acW: hours.map((h) => elementAt(loads.acW, h) * scaleUp),
    idleW: hours.map((h) => elementAt(loads.idleW, h)),
    inverterEfficiency: (many.inverters[0]?.efficiency ?? rules.inverterEfficiency) / 100,
    loadsOffV: many.inverters[0]?.cutOffV ?? 10.5 * (houseV / 12),
    place: {
      kind: one.place.where,
      coldestC: one.place.coldestC,
      hottestC: one.place.hottestC,
      insulated: one.place.ventilation === 'closed',
    },
  }
}

const chargersOf = (system: System): Plant['chargers'] =>
  system.lanes
    .filter((lane) => lane.kind === 'charger')
    .map((lane) => ({
      name: lane.name,
      stages: stagesOf(lane.charger, system),
      ohm: cableOhm(lane, system.rules),
      efficiency: lane.charger.efficiency / 100,
      powerFactor: lane.charger.powerFactor,
      supplyV: lane.charger.supplyV,
    }))

const sourcesOf = ({ lanes }: System): Plant['sources'] =>
  lanes
    .filter((lane) => lane.kind === 'source')
    .map(({ name, source }) => ({
      name,
      amps: source.largestA * (source.averageShare / 100),
      volts: source.regulatorV,
      hours: source.hours,
    }))

/** An alternator with its starting battery and its link. */
function sideOf(lane: AlternatorLane, system: System): SidePlant {
  const { alternator, starting } = lane
  const nominalV = Number(alternator.nominalV)
  return {
    id: lane.id,
    name: lane.name,
    nominalV,
    alternator: alternatorOf(alternator, system),
    startLead: starting.present === 'yes' ? startLeadOf(starting, nominalV) : null,
    standbyA: starting.present === 'noEngine' || starting.present === 'other' ? 0 : starting.standbyA,
    link: linkOf(lane, system),
  }
}

/**
 * A dead battery still holds something, as a share of its capacity: with nothing its voltage would have no meaning.
 */
const leastHealth = 0.01

export function houseLeadOf(system: System): LeadPlant {
  const { one } = system
  const health = Math.max(leastHealth, leadHealth(system))
  const c10 = (one.houseBank.ahEach * one.houseBank.parallel) / c20OverC10
  return {
    c10,
    health,
    ownA: leadLeakA(c10, health),
    ageing: 1 + 2 * (1 - health),
    cells: (6 * Number(one.houseBank.nominalV)) / 12,
    resistance: one.houseBank.chemistry === 'agm' || one.houseBank.chemistry === 'gel' ? 0.6 : 1,
  }
}

function startLeadOf(starting: View<'startingBatteries'>, nominalV: number): LeadPlant {
  const [c10, health] = [starting.ah / c20OverC10, Math.max(leastHealth, starting.health / 100)]
  return {
    c10,
    health,
    ownA: leadLeakA(c10, health),
    ageing: 1.2,
    cells: (6 * nominalV) / 12,
    resistance: starting.chemistry === 'agm' || starting.chemistry === 'gel' ? 0.6 : 1,
  }
}

export function lfpOf(system: System): LfpPlant {
  const { bank, one, rules } = system
  const { each } = bank
  const hybrid = sharesBus(system) && one.use.chargeStop === 'yes'
  return {
    ah: bank.ah * (1 - each.reserve / 100),
    nominalV: bank.nominalV,
    ohm: bank.ohm,
    kg: bank.kg,
    curve: curveOf(each),
    ownA: (each.standbyMa * each.parallel) / 1000 + (bank.ah * rules.selfDischarge) / 100 / 730.5,
    coldLimitC: bank.coldLimitC,
    bms: {
      overV: bank.bmsOverV,
      overReturnV: each.bmsOverReturnV * each.series,
      underV: bank.bmsUnderV,
      underReturnV: each.bmsUnderReturnV * each.series,
      maxDischargeA: each.overCurrentA * each.parallel * bank.sharing,
      overCurrentS: each.overCurrentS,
      coldC: each.coldCut === 'yes' ? bank.coldLimitC : null,
      coldReturnC: Math.max(each.coldReturnC, bank.coldLimitC + 1),
      hotC: each.chargeHotC,
      hotReturnC: each.chargeHotReturnC,
    },
    heater: each.heater === 'yes' ? { watts: each.heaterW * bank.count, startC: each.heaterStartC } : null,
    stops: hybrid
      ? { chargeV: rules.chargeStopV * bank.scale, dischargeV: rules.dischargeStopV * bank.scale }
      : null,
  }
}

/** The maker's resting curve, in order; null if there is none, or none that rises. */
function curveOf(each: View<'candidate'>): LfpPlant['curve'] {
  const rows = [...(each.restingCurve ?? [])].sort((a, b) => a.percent - b.percent)
  const rises =
    rows.length >= 2 &&
    rows.every(
      (row, i) =>
        i === 0 || (row.percent > elementAt(rows, i - 1).percent && row.volts > elementAt(rows, i - 1).volts),
    )
  return rises ? rows.map((row) => [row.percent / 100, row.volts] as const) : null
}

function alternatorOf(machine: View<'alternators'>, { rules }: System): AlternatorPlant {
  const scale = Number(machine.nominalV) / 12
  const swing =
    machine.regulator === 'computer' && !machine.driveTally
      ? [
          { minutes: 10, volts: machine.lowestV },
          { minutes: 6, volts: 14.2 * scale },
          { minutes: 2, volts: machine.highestV },
        ]
      : []
  return {
    ratedA: machine.ratedA,
    regulator: machine.regulator,
    regulatorV: machine.regulatorV,
    trace: machine.driveTally ?? swing,
    hotShare: rules.hotOutputShare / 100,
    limitA: machine.limitA,
    idleRpm: shaftRpm(machine, 'idle'),
    cruiseRpm: shaftRpm(machine, 'cruise'),
    vehicleA: machine.vehicleDrawA,
    heat: heatOf(machine),
    ambientC: airAroundC(machine),
    floatV: machine.regulator === 'external' ? 13.5 * scale : null,
    foldsBack: foldsBack(machine),
  }
}

/** A duty-cycling relay measures the current for so long before it opens, s (engineering default). */
const dutySensesS = 10

function linkOf(lane: AlternatorLane, system: System): LinkPlant {
  const { link } = lane
  const ohm = cableOhm(lane, system.rules)
  switch (link.kind) {
    case 'direct':
    case 'switch':
      return { kind: 'closed', ohm }
    case 'solenoid':
      return { kind: 'solenoid', ohm }
    case 'diode':
      return { kind: 'diode', ohm, dropV: link.dropV }
    case 'vsr':
      return {
        kind: 'vsr',
        ohm,
        closesV: link.closesV,
        opensV: link.opensV,
        delayS: link.delayS,
        bothWay: link.bothWay === 'yes',
      }
    case 'duty':
      return { kind: 'duty', ohm, opensAboveA: link.opensAboveA, sensesS: dutySensesS, offS: link.offTimeS }
    case 'dcdc':
      return {
        kind: 'dcdc',
        ohm,
        stages: stagesOf(link, system),
        efficiency: system.rules.dcdcEfficiency / 100,
        lowestV: link.lowestInputV,
        wire: link.signal === 'wire',
        backFeed: link.backFeed === 'yes',
      }
    case 'none':
      return { kind: 'none' }
  }
}

function stagesOf(unit: View<'chargers'> | View<'links'> | View<'solar'>, { bank }: System): Stages {
  return {
    maxA: unit.ratedA,
    absorptionV: unit.absorptionV,
    absorptionH: unit.absorptionH,
    floatV: unit.floatMode === 'on' ? unit.floatV : null,
    restartV: 13.1 * bank.scale,
    tailA: bank.tailA,
  }
}

function solarOf(solar: View<'solar'>, system: System): Omit<SolarPlant, 'ohm'> {
  return {
    watts: solar.panelW * solar.series * solar.parallel,
    pwm: solar.controller === 'pwm',
    impA: solar.maxPowerA * solar.parallel,
    derate: 0.8,
    shade: solar.shading / 100,
    stages: stagesOf(solar, system),
  }
}

const partHours = { night: [0, 6], morning: [6, 12], afternoon: [12, 18], evening: [18, 24] } as const

/** Loads spread over the hours of the day in which they run: DC in A, AC in W, and inverters idling in W. */
function loadsByHour(system: System): {
  readonly dcA: number[]
  readonly acW: number[]
  readonly idleW: number[]
  readonly totalAh: number
} {
  const dcA = Array.from({ length: 24 }, () => 0)
  const acW = Array.from({ length: 24 }, () => 0)
  const idleW = Array.from({ length: 24 }, () => 0)
  let totalAh = 0
  for (const load of system.many.loads) {
    const [from, to] = load.period === 'even' ? [0, 24] : partHours[load.period]
    const share = (load.hours * (load.duty / 100)) / (to - from)
    totalAh += loadA(load, system) * load.hours * (load.duty / 100)
    for (let h = from; h < to; h++) {
      if (load.supply === 'dc') dcA[h]! += load.amps * share
      else acW[h]! += load.watts * share
    }
  }
  for (const inverter of system.many.inverters) {
    const on = Math.round(inverter.hoursOn)
    for (let i = 0; i < on; i++) idleW[(9 + i) % 24]! += inverter.idleW
  }
  return { dcA, acW, idleW, totalAh }
}
