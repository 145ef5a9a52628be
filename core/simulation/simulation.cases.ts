import type { LfpPlant, LinkPlant, Plant, SidePlant, Stages } from './plant'
import type { RunInputs } from './run-kinds'
import type { Totals } from './totals'
import type { Surroundings } from './surroundings'

/** A 30 A unit that charges lithium and stops. */
export const stages: Stages = {
  maxA: 30,
  absorptionV: 14.4,
  absorptionH: 2,
  floatV: null,
  restartV: 13.1,
  tailA: 10,
}

/** A BMS as most are. */
export const bms: LfpPlant['bms'] = {
  overV: 15,
  overReturnV: 14,
  underV: 10,
  underReturnV: 12,
  maxDischargeA: 200,
  overCurrentS: 5,
  coldC: 0,
  coldReturnC: 3,
  hotC: 55,
  hotReturnC: 50,
}

/** A lithium battery of 200 Ah. */
export const lfp: LfpPlant = {
  ah: 200,
  nominalV: 12,
  ohm: 0.006,
  kg: 24,
  curve: null,
  ownA: 0,
  coldLimitC: 0,
  bms,
  heater: null,
  stops: null,
}

/** A healthy lead battery of 100 Ah. */
export const lead = { c10: 100, health: 1, ageing: 1, cells: 6, ownA: 0, resistance: 1 } as const

/** A machine of 200 A under a bonnet that warms easily. */
export const alternator: NonNullable<SidePlant['alternator']> = {
  ratedA: 200,
  regulator: 'fixed',
  regulatorV: 14.4,
  trace: [],
  hotShare: 0.85,
  limitA: null,
  idleRpm: 1900,
  cruiseRpm: 5000,
  vehicleA: 15,
  heat: { riseK: 75, tauMin: 15 },
  ambientC: 60,
  floatV: null,
  foldsBack: false,
}

/** Nothing in any hour of the day. */
export const none = Array.from({ length: 24 }, () => 0)

/** That machine with its starting battery, joined to nothing. */
export const starboard: SidePlant = {
  id: 'links/link-1',
  name: 'The alternator',
  nominalV: 12,
  alternator,
  startLead: lead,
  standbyA: 0.05,
  link: { kind: 'none' },
}

/** The lithium battery and that machine, and nothing besides. */
export const plain: Plant = {
  name: 'test',
  lfp,
  houseLead: null,
  sides: [starboard],
  chargers: [],
  generatorShare: 0,
  solar: [],
  sources: [],
  dcA: none,
  acW: none,
  idleW: none,
  inverterEfficiency: 0.9,
  loadsOffV: 10.5,
  place: { kind: 'cabin', coldestC: 20, hottestC: 20, insulated: false },
  assumed: [],
}

/** A morning of driving from a low battery. */
export const inputs: RunInputs = {
  soc: 0.2,
  days: 0.25,
  driveH: 5,
  idleShare: 0,
  driveFrom: 6,
  mainsH: 0,
  mainsFrom: 18,
  generatorH: 0,
  coldC: 20,
  warmC: 20,
  clearness: 0,
  latitude: 50,
  longitude: 0,
  dayOfYear: 100,
  tilt: 0,
  loads: true,
}

/** A moment at which nothing charges. */
export const quiet: Surroundings = {
  hour: 12,
  engine: 'off',
  engineS: 0,
  mains: false,
  supplyShare: 1,
  airC: 25,
  sunWm2: 0,
  loads: true,
}

/** A relay that joins the two while the engine charges. */
export const relay = {
  kind: 'vsr',
  ohm: 0.005,
  closesV: 13.3,
  opensV: 12.8,
  delayS: 0,
  bothWay: false,
} as const satisfies LinkPlant

/** One alternator with its starting battery, with something changed. */
export const side = (more: Partial<SidePlant>): Pick<Plant, 'sides'> => ({
  sides: [{ ...starboard, ...more }],
})
/** That alternator through a link. */
export const linked = (link: LinkPlant, more: Partial<SidePlant> = {}): Plant => ({
  ...plain,
  ...side({ ...more, link }),
})
/** A charger alone. */
export const mains = (more: Partial<Stages> = {}): Plant => ({
  ...plain,
  sides: [],
  chargers: [
    {
      name: 'charger',
      stages: { ...stages, ...more },
      ohm: 0.005,
      efficiency: 0.85,
      powerFactor: 0.8,
      supplyV: 230,
    },
  ],
})

/** What may differ between two ways of stepping the same run, as a share of all that flowed. */
export function apart(a: Totals, b: Totals): number {
  const through = Math.max(1, b.loadAh + b.mainsAh + b.solarAh + b.sourceAh + Math.abs(b.engineAh))
  const flows = ['loadAh', 'unservedAh', 'engineAh', 'mainsAh', 'solarAh', 'sourceAh', 'backAh'] as const
  return Math.max(...flows.map((flow) => Math.abs(a[flow] - b[flow]) / through))
}
