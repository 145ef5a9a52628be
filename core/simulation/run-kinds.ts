import { joinText } from '#core/units/format'
/** Inputs of a run; each has a default from the job. */
export interface RunInputs {
  /** State of charge at the start, 0 to 1. */
  readonly soc: number
  readonly days: number
  /** Hours the engine runs a day, of which a share at idle (0 to 1), and from which hour. */
  readonly driveH: number
  readonly idleShare: number
  readonly driveFrom: number
  /** Hours on mains a day, and from which hour. */
  readonly mainsH: number
  readonly mainsFrom: number
  /** Hours a generator runs a day. */
  readonly generatorH: number
  /** Air at its coldest and warmest in the day, °C. */
  readonly coldC: number
  readonly warmC: number
  /** Share of clear-sky sun, 0 to 1, latitude and longitude in degrees, and day of the year. */
  readonly clearness: number
  readonly latitude: number
  readonly longitude: number
  readonly dayOfYear: number
  readonly tilt: number
  /** Whether the loads run. */
  readonly loads: boolean
}

interface RunKind {
  readonly title: string
  readonly about: string
  readonly inputs: readonly (keyof RunInputs)[]
  readonly usual: (base: RunInputs) => Partial<RunInputs>
  readonly needsWeather?: true
  /** Ends before its days are over: once the house is full, or empty. */
  readonly until?: 'full' | 'empty'
}

/** Air on a mild night, °C. The cold week covers charging in the cold. */
const mildC = 12

/** Additional inputs of a run with an engine. */
const suppliesAndAir = ['mainsH', 'mainsFrom', 'generatorH', 'coldC', 'warmC', 'clearness'] as const

/** Every run, by name. */
export const runKinds = {
  'driving-day': {
    title: 'Driving day',
    about: 'From a low battery in the morning through the drive and the night.',
    inputs: ['soc', 'days', 'driveH', 'idleShare', 'driveFrom', ...suppliesAndAir],
    usual: () => ({ days: 1, mainsH: 0 }),
  },
  'standing-still': {
    title: 'Parked',
    about: 'Days until the battery is empty, with solar only.',
    inputs: ['soc', 'days', 'clearness', 'dayOfYear', 'latitude', 'tilt', 'coldC', 'warmC'],
    usual: () => ({ soc: 1, days: 14, driveH: 0, mainsH: 0, generatorH: 0 }),
    until: 'empty',
  },
  'mains-night': {
    title: 'Mains night',
    about: 'Hours to full on the mains charger, and its current from the supply.',
    inputs: ['soc', 'mainsFrom', 'coldC', 'warmC'],
    usual: (base) => ({
      days: 1,
      driveH: 0,
      mainsH: 24,
      mainsFrom: 0,
      clearness: 0,
      coldC: Math.max(mildC, base.coldC),
      warmC: Math.max(mildC, base.warmC),
    }),
    until: 'full',
  },
  'cold-week': {
    title: 'Cold week',
    about: joinText(
      'A week at the coldest, then the first start. ',
      'Shows when a source would charge and when the cells allow it.',
    ),
    inputs: ['soc', 'days', 'driveH', 'driveFrom', ...suppliesAndAir],
    usual: (base) => ({ days: 7, driveFrom: 7, warmC: base.coldC + 4, clearness: 0.3, dayOfYear: 15 }),
  },
  'lay-up': {
    title: 'Lay-up',
    about: 'Weeks of standby without charging.',
    inputs: ['soc', 'days', 'coldC', 'warmC'],
    usual: () => ({ soc: 0.6, days: 180, driveH: 0, mainsH: 0, generatorH: 0, clearness: 0, loads: false }),
    until: 'empty',
  },
  'typical-year': {
    title: 'Typical year',
    about: 'A year of weather: days without enough energy, and hours too cold to charge.',
    inputs: ['soc', 'driveH', 'mainsH', 'generatorH', 'tilt'],
    usual: () => ({ soc: 0.8, days: 365 }),
    needsWeather: true,
  },
} as const satisfies Record<string, RunKind>
export type RunId = keyof typeof runKinds
export const runIds = Object.keys(runKinds) as RunId[]
export const runKind = (id: RunId): RunKind => runKinds[id]

/** The hour at which every run begins: morning. */
export const beginsAt = 6

/** Inputs of a run as they come from the job. */
export const usualInputs = (run: RunId, base: RunInputs): RunInputs => ({
  ...base,
  ...runKind(run).usual(base),
})
