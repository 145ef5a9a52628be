/** The instrument of a reading. */
export type Instrument = 'meter' | 'clamp' | 'monitor' | 'probe' | 'eye' | 'counted'

interface Class {
  readonly name: string
  /** Standard deviation of a reading: a share of it, and a constant. */
  readonly share: number
  readonly floor: number
  /** Resolution of its display. */
  readonly step: number
}

/**
 * Classes of usual instruments, as one standard deviation: half of the maker's limit. The meter's floor includes
 * the difference between two touches of leads and lugs.
 */
const classes: Readonly<Record<Instrument, Class>> = {
  meter: { name: 'Meter', share: 0.0025, floor: 0.002, step: 0.001 },
  clamp: { name: 'Clamp meter', share: 0.01, floor: 0.1, step: 0.01 },
  monitor: { name: 'Monitor', share: 0.005, floor: 0.05, step: 0.01 },
  probe: { name: 'Temperature probe', share: 0, floor: 1, step: 0.1 },
  eye: { name: 'Eye', share: 0.005, floor: 0.02, step: 0.01 },
  /** Charge that a monitor counts over hours: its own class, and the warmth and the age of a new battery. */
  counted: { name: 'Monitor', share: 0.03, floor: 0.1, step: 0.1 },
}

export const instrumentName = (instrument: Instrument): string => classes[instrument].name

/** Standard deviation of a reading from its instrument, in the unit of the reading. */
export function deviationOf(instrument: Instrument, reading: number): number {
  const { share, floor } = classes[instrument]
  return Math.hypot(share * reading, floor)
}

/** A reading as its instrument shows it. */
export const shown = (instrument: Instrument, reading: number): number => {
  const { step } = classes[instrument]
  return Number((Math.round(reading / step) * step).toFixed(6))
}
