import { batteryHeat, heaterSpanK, temperatureFactor } from '#core/physics/lfp'
import { leadCapacityAh } from '#core/physics/lead'
import type { View } from './scene'
import { availableA } from './alternators'
import type { Bank } from './bank'
import { acceptanceA, arrayA, laneCurrentA } from './currents'
import type { Lane } from './lanes'
import type { System } from './system'

/** Voltage at which loads in watts are counted, V: a bank in the middle of its charge. */
export const workingV = (bank: Bank): number => bank.ocv(0.5)

/** Current of a load while it runs, at the battery, A: an AC load through the inverter with its loss. */
export function loadA(load: View<'loads'>, { bank, many, rules }: System): number {
  if (load.supply === 'dc') return load.amps
  const efficiency = many.inverters[0]?.efficiency ?? rules.inverterEfficiency
  return load.watts / (workingV(bank) * (efficiency / 100))
}

interface DailyUse {
  readonly ah: number
  /** Whether it was counted on the job or added up from the list of loads. */
  readonly from: 'counted' | 'loads'
}

/**
 * Charge used a day, Ah of the bank: as counted by a monitor, else the sum of the loads and of the idle draw of
 * inverters.
 */
export function dailyUse(system: System): DailyUse {
  const { one, many, bank } = system
  if (one.use.$settled('dailyAh') || many.loads.length === 0) return { ah: one.use.dailyAh, from: 'counted' }
  const loads = many.loads.reduce(
    (sum, load) => sum + loadA(load, system) * load.hours * (load.duty / 100),
    0,
  )
  const idle = many.inverters.reduce(
    (sum, inverter) =>
      sum + (inverter.hoursOn === 0 ? 0 : (inverter.idleW / workingV(bank)) * inverter.hoursOn),
    0,
  )
  return { ah: loads + idle, from: 'loads' }
}

/** DC loads on at once, A: as measured, else those on the list that run together. */
export function dcAtOnceA(system: System): number {
  const { one, many } = system
  if (one.use.$settled('dcAtOnceA') || many.loads.length === 0) return one.use.dcAtOnceA
  return many.loads
    .filter((load) => load.supply === 'dc' && load.together === 'yes')
    .reduce((sum, load) => sum + load.amps, 0)
}

/** A bank under a load: its terminal voltage and its current. */
interface UnderLoad {
  readonly volts: number
  readonly amps: number
  /** Whether it can give that at all; where not, the voltage is that of the most it can. */
  readonly given: boolean
}

/**
 * A bank at the shop's low charge under DC loads, A, and loads of constant power, W: V = (E + √(E² − 4·P·R)) ÷ 2
 * with E = OCV − I·R. Without a solution the power cannot be given; the most it can give is at E ÷ 2.
 * @param parallel batteries side by side, where that is not as planned
 */
export function underLoad(
  dcA: number,
  watts: number,
  { bank, rules }: System,
  parallel = bank.each.parallel,
): UnderLoad {
  const ohm = (bank.ohm * bank.each.parallel) / parallel
  const emf = bank.ocv(rules.lowSoc / 100) - dcA * ohm
  const root = emf * emf - 4 * watts * ohm
  const volts = (emf + Math.sqrt(Math.max(0, root))) / 2
  return { volts, amps: dcA + watts / volts, given: emf > 0 && root >= 0 }
}

/** More in parallel than any maker allows. */
export const tooMany = 21
/** The fewest batteries in parallel that hold a load as it must be held; {@link tooMany} where none do. */
export function fewestParallel(
  { dcA, takenW }: { readonly dcA: number; readonly takenW: number },
  system: System,
  holds: (under: UnderLoad, parallel: number) => boolean,
): number {
  for (let parallel = 1; parallel < tooMany; parallel++) {
    const under = underLoad(dcA, takenW, system, parallel)
    if (under.given && holds(under, parallel)) return parallel
  }
  return tooMany
}

export interface Demand extends UnderLoad {
  readonly dcA: number
  readonly inverterA: number
  /** Output of the inverters, and their input from the bank, W. */
  readonly watts: number
  readonly takenW: number
}

const takenW = ({ continuousW, efficiency }: View<'inverters'>): number => continuousW / (efficiency / 100)

/**
 * Highest sustained discharge current, A: DC loads at once and each inverter at full power from a bank that
 * is low, at the voltage it sags to.
 */
export function highestDischargeA(system: System): Demand {
  const { inverters } = system.many
  const watts = inverters.reduce((sum, { continuousW }) => sum + continuousW, 0)
  const taken = inverters.reduce((sum, inverter) => sum + takenW(inverter), 0)
  const dcA = dcAtOnceA(system)
  const under = underLoad(dcA, taken, system)
  return { ...under, dcA, inverterA: under.amps - dcA, watts, takenW: taken }
}

/** Current of one inverter at full power while all that runs together does, A. */
export const inverterA = (inverter: View<'inverters'>, system: System): number =>
  takenW(inverter) / highestDischargeA(system).volts

/**
 * Current while the hardest load starts, A, and its duration, s: all loads that run together, the inverters at
 * their surge (or, if AC loads are listed, the surge of those), and the largest starting current on top.
 */
export function surgeA(
  system: System,
): UnderLoad & { readonly seconds: number; readonly dcA: number; readonly takenW: number } {
  const { many, rules } = system
  const dc = many.loads.filter((load) => load.supply === 'dc')
  const startsA = Math.max(0, ...dc.map((load) => load.amps * (load.surge - 1)))
  const ac = many.loads.filter((load) => load.supply === 'ac')
  const together = ac.filter((load) => load.together === 'yes').reduce((sum, load) => sum + load.watts, 0)
  const asked = together + Math.max(0, ...ac.map((load) => load.watts * (load.surge - 1)))
  const surgeW = many.inverters.reduce((sum, inverter) => sum + inverter.surgeW, 0)
  const watts = ac.length > 0 ? Math.min(asked, surgeW) : surgeW
  const efficiency = many.inverters[0]?.efficiency ?? rules.inverterEfficiency
  const seconds =
    watts > 0 || startsA > 0 ? Math.max(...many.inverters.map((inverter) => inverter.surgeS), 1) : 0
  const taken = watts / (efficiency / 100)
  const dcA = dcAtOnceA(system) + startsA
  return { ...underLoad(dcA, taken, system), seconds, dcA, takenW: taken }
}

/** Coldest the cells work at, °C: the coldest of their place. A heater warms them only while they charge. */
export const workingC = ({ one }: System): number => one.place.coldestC

/** Usable capacity of the lithium, Ah: rated × (1 − reserve) × usable share × temperature factor. */
export function usableAh(system: System, celsius = 25): number {
  const { bank, rules } = system
  return bank.ah * (1 - bank.each.reserve / 100) * (rules.usableLithium / 100) * temperatureFactor(celsius)
}

/** Remaining share of the lead-acid bank's rated capacity, 0 to 1: by test, else by age. */
export function leadHealth({ one, rules }: System): number {
  const { houseBank } = one
  if (houseBank.testedAh !== null) return Math.min(1, houseBank.testedAh / houseBank.ahEach)
  return Math.max(rules.leadOldest / 100, 1 - (rules.leadAgeing / 100) * houseBank.ageYears)
}

/**
 * Usable capacity of the lead bank, Ah, at the mean current of its daily use and 25 °C.
 * @param health 1 for as new
 */
export function leadUsableAh(system: System, health: number): number {
  const { one, rules } = system
  const { ahEach, parallel } = one.houseBank
  const meanA = dailyUse(system).ah / 24
  return leadCapacityAh(ahEach, meanA / parallel, 25) * parallel * health * (rules.usableLead / 100)
}

/** Whether the old house bank is lithium, as far as someone entered it: never asked for. */
export const isOldLithium = ({ one }: System): boolean => one.houseBank.$entered('chemistry') === 'lithium'

/** Whether the old battery stays on the bus of the new one, lead or lithium. */
export const oldBankStays = ({ one }: System): boolean =>
  one.use.mixed === 'hybrid' || one.use.mixed === 'relay'

/** Whether lead and lithium are one bank on one bus. */
export const sharesBus = (system: System): boolean => oldBankStays(system) && !isOldLithium(system)

/** Capacity that lithium loses a year, and the least that is counted as left (engineering defaults). */
const lithiumAgeing = 0.02
const lithiumOldest = 0.7

/** Usable capacity of the old bank as it is now, Ah of its own voltage. */
export function oldUsableAh(system: System): number {
  const { one, rules } = system
  if (!isOldLithium(system)) return leadUsableAh(system, leadHealth(system))
  const { ahEach, parallel, testedAh, ageYears } = one.houseBank
  const agedAh = ahEach * Math.max(lithiumOldest, 1 - lithiumAgeing * ageYears)
  return (Math.min(ahEach, testedAh ?? agedAh) * parallel * rules.usableLithium) / 100
}

/** Usable lead that stays next to the lithium, Ah; 0 where it is replaced or parted from it. */
const keptLeadAh = (system: System): number =>
  sharesBus(system) ? leadUsableAh(system, leadHealth(system)) : 0

/** Usable capacity of all that will be there at 25 °C, Ah: the lithium, and lead that stays with it. */
export const freshUsableAh = (system: System): number => usableAtAh(system, 25)

/** The same at the coldest the bank works at, Ah. */
export const usableColdAh = (system: System): number => usableAtAh(system, workingC(system))

/** The same with the lithium at a temperature, Ah. */
export const usableAtAh = (system: System, celsius: number): number =>
  usableAh(system, celsius) + keptLeadAh(system)

/**
 * The fewest batteries in parallel with which this much is usable, whatever lead stays next to them.
 * @param needAh usable, Ah
 * @param celsius temperature of the cells, °C
 */
export function parallelFor(needAh: number, system: System, celsius: number): number {
  const eachAh = usableAh(system, celsius) / system.bank.each.parallel
  return Math.max(1, Math.ceil((needAh - keptLeadAh(system)) / eachAh))
}

/** Share of the drive in which a computer-controlled alternator charges at all; 1 for any other. */
const alternatorShare = ({ alternator, link }: Extract<Lane, { kind: 'alternator' }>): number => {
  const tally = alternator.driveTally
  if (link.kind === 'dcdc' || alternator.regulator !== 'computer' || !tally || tally.length === 0) return 1
  const total = tally.reduce((sum, row) => sum + row.minutes, 0)
  return total === 0
    ? 1
    : tally.reduce(
        (sum, row) => sum + (row.volts >= 13.8 * (Number(alternator.nominalV) / 12) ? row.minutes : 0),
        0,
      ) / total
}

/** Hours a day a lane gives, and its mean current in that time, A. Solar in hours of full sun. */
export function laneDay(lane: Lane, system: System): { readonly hours: number; readonly amps: number } {
  const { rules, bank } = system
  switch (lane.kind) {
    case 'charger':
      return { hours: lane.charger.hours, amps: laneCurrentA(lane, system) }
    case 'source':
      return { hours: lane.source.hours, amps: lane.source.largestA * (lane.source.averageShare / 100) }
    case 'solar': {
      const left = (rules.solarDerate / 100) * (1 - lane.solar.shading / 100)
      const amps = Math.min(lane.solar.ratedA, arrayA(lane.solar, workingV(bank)) * left)
      return { hours: rules.sunHours, amps }
    }
    case 'alternator': {
      if (lane.link.kind === 'none') return { hours: 0, amps: 0 }
      const amps =
        lane.link.kind === 'dcdc'
          ? Math.min(lane.link.ratedA, bank.largestA)
          : Math.min(
              acceptanceA(lane, 0.5, 'cruise', system),
              bank.largestA,
              availableA(lane.alternator, 'cruise', rules),
            )
      return { hours: lane.alternator.driveHours * alternatorShare(lane), amps }
    }
  }
}

/**
 * Charge that a battery heater uses on the coldest day, Ah: it warms the cells from the coldest of their place and
 * keeps them warm while sources charge. 0 without a heater.
 */
function heaterDayAh(system: System): number {
  const { bank, one } = system
  const { heater, heaterStartC, heaterW } = bank.each
  const { coldestC } = one.place
  if (heater !== 'yes' || coldestC >= heaterStartC) return 0
  const riseK = heaterStartC + heaterSpanK - coldestC
  const { joulePerK, kPerW } = batteryHeat(bank.kg, one.place.ventilation === 'closed')
  const hours = Math.min(24, chargingHoursAway(system))
  const neededWh = (joulePerK * riseK) / 3600 + (riseK / kPerW) * hours
  return Math.min(neededWh, heaterW * bank.count * hours) / bank.nominalV
}

/** Daylight of a winter day, h: a heater runs for all of it, not for its hours of full sun alone. */
const winterDaylightH = 8

/** Hours a day in which sources charge away from mains, all lanes together, h. */
function chargingHoursAway(system: System): number {
  const hoursOf = (lane: Lane): number => {
    if (lane.kind === 'charger') return generatorHours(system)
    return lane.kind === 'solar' ? winterDaylightH : laneDay(lane, system).hours
  }
  return system.lanes.reduce((sum, lane) => sum + hoursOf(lane), 0)
}

/** A cold day away from mains, Ah. */
interface DayAway {
  readonly use: DailyUse
  readonly heatAh: number
  /** Use and heat together. */
  readonly usedAh: number
  readonly chargedAh: number
  /** The daily deficit; 0 or less if the sources cover the use. */
  readonly netAh: number
  /** Days the bank lasts at that; Infinity where no shortfall. */
  readonly lastsDays: number
}

export function dayAway(system: System): DayAway {
  const use = dailyUse(system)
  const heatAh = heaterDayAh(system)
  const usedAh = use.ah + heatAh
  const chargedAh = chargedAwayAh(system)
  const netAh = usedAh - chargedAh
  const lastsDays = netAh > 0 ? usableColdAh(system) / netAh : Infinity
  return { use, heatAh, usedAh, chargedAh, netAh, lastsDays }
}

/** Supply power of a charger at full current, W at its power factor. */
export const chargerSupplyW = ({ absorptionV, ratedA, efficiency, powerFactor }: View<'chargers'>): number =>
  (absorptionV * ratedA) / ((efficiency / 100) * powerFactor)

/** Hours a day that generators run, at most 24. */
const generatorHours = ({ many }: System): number =>
  Math.min(
    24,
    many.generators.reduce((sum, generator) => sum + generator.hours, 0),
  )

/** Power of all generators, W. */
export const generatorW = ({ many }: System): number =>
  many.generators.reduce((sum, { watts }) => sum + watts, 0)

/** Share of their current that all chargers together get from the generators, 0 to 1. */
export function generatorShare(system: System): number {
  const drawsW = system.lanes.reduce(
    (sum, lane) => sum + (lane.kind === 'charger' ? chargerSupplyW(lane.charger) : 0),
    0,
  )
  return drawsW > 0 ? Math.min(1, generatorW(system) / drawsW) : 0
}

/**
 * Charge brought by the sources that work away from mains on an ordinary day, Ah; chargers only while a
 * generator runs.
 */
export function chargedAwayAh(system: System): number {
  const generatorH = generatorHours(system)
  const onGeneratorH = generatorH > 0 ? generatorH * generatorShare(system) : 0
  return system.lanes.reduce((sum, lane) => {
    // Nothing of a charger counts where no generator runs it.
    if (lane.kind === 'charger' && onGeneratorH === 0) return sum
    const { hours, amps } = laneDay(lane, system)
    return sum + amps * (lane.kind === 'charger' ? onGeneratorH : hours)
  }, 0)
}

/**
 * Charge brought by all sources on an ordinary day, chargers on mains included, Ah. Null while someone has to find out
 * for how long they run.
 */
export function chargedDailyAh(system: System): number | null {
  let mainsAh = 0
  for (const lane of system.lanes) {
    if (lane.kind === 'alternator' && !lane.alternator.$settled('driveHours')) return null
    if (lane.kind !== 'charger') continue
    if (!lane.charger.$settled('hours')) return null
    const { hours, amps } = laneDay(lane, system)
    mainsAh += amps * hours
  }
  return mainsAh + chargedAwayAh(system)
}
