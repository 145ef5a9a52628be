/** Surroundings of the system, constant within a stretch of time. */
export interface Surroundings {
  /** Hour of the day, 0 to 24, in the middle of the stretch. */
  readonly hour: number
  readonly engine: 'off' | 'idle' | 'cruise'
  /** Seconds since the engine started, in the middle of the stretch: clear of where the drive trace moves. */
  readonly engineS: number
  /** Whether mains chargers are fed, by mains or a generator. */
  readonly mains: boolean
  /** Share of their current that mains chargers can give, 0 to 1: less on a small generator. */
  readonly supplyShare: number
  readonly airC: number
  readonly sunWm2: number
  readonly loads: boolean
}

/** A mild night without any source: the initial surroundings. */
export const atRest: Surroundings = {
  hour: 0,
  engine: 'off',
  engineS: 0,
  mains: false,
  supplyShare: 1,
  airC: 20,
  sunWm2: 0,
  loads: true,
}

/** Hours from one hour of the day to the next time it is another, 0 to 24. */
export const hoursSince = (from: number, hour: number): number =>
  hour < from ? hour - from + 24 : hour - from
