/** Results of one alternator. */
export interface MachineTotals {
  readonly side: string
  /** Highest case temperature, °C; null if its heat hardly depends on the current. */
  readonly peakC: number | null
  readonly hotH: number
  /** Minutes of driving until it passed its limit; null if it did not. */
  readonly limitMin: number | null
}

export interface Totals {
  readonly hours: number
  readonly loadAh: number
  readonly unservedAh: number
  readonly engineAh: number
  readonly mainsAh: number
  readonly solarAh: number
  readonly sourceAh: number
  /** Charge that ran from the house to the starting sides with the engine off, Ah. */
  readonly backAh: number
  readonly endSoc: number
  readonly leastSoc: number
  /** Hours until it was full for the first time; null if it never was. */
  readonly fullAfterH: number | null
  /** Hours until the loads went off for the first time; null if they never did. */
  readonly darkAfterH: number | null
  /** Of the hottest alternator. */
  readonly alternatorPeakC: number | null
  readonly alternatorHotH: number
  /** Minutes of driving until an alternator passed its limit; null if none did. */
  readonly alternatorLimitMin: number | null
  /** Each alternator, by side. */
  readonly machines: readonly MachineTotals[]
  readonly coldRefusedH: number
  /** Charge pushed into cells below their lowest charging temperature, Ah. */
  readonly coldChargedAh: number
  readonly heaterWh: number
  readonly leadGassingH: number
  /** Self-discharge of the house lead-acid, Ah: a weak one drains the lithium. */
  readonly leadLostAh: number
  readonly acSupplyA: number
  readonly daysShort: number
  readonly cutOuts: number
  /**
   * Largest sum of currents at the house bus that was not zero, A; and the error in the balance of charge, share.
   */
  readonly residualA: number
  readonly imbalance: number
}

/** Charge that all sources brought, Ah. */
export const broughtAhOf = ({
  engineAh,
  mainsAh,
  solarAh,
  sourceAh,
}: Pick<Totals, 'engineAh' | 'mainsAh' | 'solarAh' | 'sourceAh'>): number =>
  engineAh + mainsAh + solarAh + sourceAh
