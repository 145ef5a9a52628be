/** Shaft speed at which a machine is rated, rpm (ISO 8854). */
const ratedRpm = 6000
const cutInRpm = 1000
const riseRpm = 1500

/**
 * Largest current of a warm machine at a shaft speed, A: I = rated · k · (1 − e^(−(n − 1000)/1500)).
 * @param ratedA label current, A, stated at 6000 rpm
 * @param shaftRpm speed of the alternator's own shaft, rpm; nothing below 1000
 * @param hotShare k, warm output as a share of the label, 0 to 1
 */
export function hotOutputA(ratedA: number, shaftRpm: number, hotShare: number): number {
  return shaftRpm <= cutInRpm ? 0 : ratedA * hotShare * (1 - Math.exp(-(shaftRpm - cutInRpm) / riseRpm))
}

/** Hot output at the rated speed, A: the anchor of the curve. */
export const hotOutputAtRatedSpeedA = (ratedA: number, hotShare: number): number =>
  hotOutputA(ratedA, ratedRpm, hotShare)

/**
 * How an alternator warms: temperature rise of its case, ΔT_ref, K, and how fast, min. Readings give both.
 */
export interface AlternatorHeat {
  readonly riseK: number
  readonly tauMin: number
}
/**
 * Rise that is plausible of a machine without readings, K, and its usual time constant, min: engineering defaults.
 */
export const plausibleRiseK = [45, 75] as const
export const usualTauMin = 15
export const plausibleTauMin = [8, 25] as const
/** The middle of the plausible range. */
export const usualHeat: AlternatorHeat = { riseK: 60, tauMin: usualTauMin }
/** Highest case temperature, °C, and of the air around it, °C. Engineering defaults. */
export const caseLimitC = 100
export const underBonnetC = 60
export const openSpaceC = 40

/**
 * Voltage that a temperature-compensated regulator subtracts at a temperature, V: 5 mV per degree above 25 °C at 12
 * V, half of the compensation for lead-acid cells (engineering default).
 * @param scale nominal voltage ÷ 12
 */
export const warmLossV = (celsius: number, scale: number): number => 0.005 * scale * Math.max(0, celsius - 25)

/**
 * Share of the reference rise from field, iron and windage, which falls with speed; all shares total 1 at full load
 * and 6000 rpm.
 */
const idleShareAt = (shaftRpm: number): number => 0.1 + 0.1 * (shaftRpm / ratedRpm) ** 1.5
/** The fan moves less air at low speed: how much more a share of loss warms. */
const warmerAt = (shaftRpm: number): number => Math.sqrt(ratedRpm / shaftRpm)

/**
 * Case temperature a loaded alternator settles at, °C: T_amb + ΔT_ref · (0.1 + 0.1·(n/6000)^1.5 + 0.3x +
 * 0.5x²) · (6000/n)^0.5, with x = I ÷ (0.8 · rated): field, iron and windage, diodes, copper, and the air its
 * fan moves. An engineering default.
 * @param shaftRpm speed of its own shaft, rpm; a shaft that stands warms nothing
 */
export function steadyCaseC(
  amps: number,
  ratedA: number,
  shaftRpm: number,
  ambientC: number,
  { riseK }: AlternatorHeat,
): number {
  if (shaftRpm <= 0) return ambientC
  const x = amps / (0.8 * ratedA)
  return ambientC + riseK * (idleShareAt(shaftRpm) + 0.3 * x + 0.5 * x * x) * warmerAt(shaftRpm)
}

/**
 * The load at which the case settles at a temperature, A: {@link steadyCaseC} turned round; 0 where it is that
 * warm without a load.
 */
export function loadAtCaseA(
  celsius: number,
  ratedA: number,
  shaftRpm: number,
  ambientC: number,
  { riseK }: AlternatorHeat,
): number {
  if (shaftRpm <= 0) return 0
  const left = (celsius - ambientC) / (riseK * warmerAt(shaftRpm)) - idleShareAt(shaftRpm)
  return left <= 0 ? 0 : 0.8 * ratedA * (-0.3 + Math.sqrt(0.09 + 2 * left))
}

/**
 * Minutes until the case reaches a limit from a start temperature at a steady load; Infinity where it never
 * does.
 */
export function minutesToLimit(
  startC: number,
  steadyC: number,
  limitC: number,
  { tauMin }: AlternatorHeat,
): number {
  if (startC >= limitC) return 0
  return steadyC <= limitC ? Infinity : tauMin * Math.log((steadyC - startC) / (steadyC - limitC))
}

/** A reading of the case: amps, rpm of the alternator shaft, minutes since the load began, °C. */
export interface CaseReading {
  readonly amps: number
  readonly rpm: number
  readonly minutes: number
  readonly celsius: number
}
interface HeatFit {
  readonly heat: AlternatorHeat
  /** Root of the mean square difference between readings and model, K. */
  readonly residualK: number
  /** The rise lies within this much of the fitted one, K, 19 times in 20. */
  readonly riseWithinK: number
  readonly readings: number
  /** Whether the time constant was fitted too: it takes two readings or more. */
  readonly tauFitted: boolean
}

/** A contact probe is not surer than this, K (engineering default). */
const probeK = 2

/** A temperature rise with its squared error against the readings, K², and its precision. */
interface RiseFit {
  readonly riseK: number
  readonly sum: number
  readonly bottom: number
}

/** The temperature rise for one time constant: it is linear in the model, and has a closed form. */
function fitRise(
  readings: readonly CaseReading[],
  ratedA: number,
  {
    ambientC,
    startC,
    tauMin,
  }: { readonly ambientC: number; readonly startC: number; readonly tauMin: number },
): RiseFit {
  const unit: AlternatorHeat = { riseK: 1, tauMin: 1 }
  const rows = readings.map((r) => {
    const warmed = 1 - Math.exp(-r.minutes / tauMin)
    const shape = steadyCaseC(r.amps, ratedA, r.rpm, 0, unit) * warmed
    return { shape, above: r.celsius - (startC + (ambientC - startC) * warmed) }
  })
  const top = rows.reduce((all, { shape, above }) => all + shape * above, 0)
  const bottom = rows.reduce((all, { shape }) => all + shape * shape, 0)
  const riseK = bottom > 0 ? Math.max(1, top / bottom) : usualHeat.riseK
  return { riseK, sum: rows.reduce((all, { shape, above }) => all + (above - riseK * shape) ** 2, 0), bottom }
}

/** Where a function with one valley is smallest, by golden-section search. */
function smallestBetween(from: number, to: number, of: (at: number) => number): number {
  const golden = (Math.sqrt(5) - 1) / 2
  let [low, high] = [from, to]
  for (let i = 0; i < 40; i++) {
    const [a, b] = [high - golden * (high - low), low + golden * (high - low)]
    if (of(a) <= of(b)) high = b
    else low = a
  }
  return (low + high) / 2
}

/**
 * Fits temperature rise and time constant to readings by least squares. The rise is linear in the model and
 * has a closed form for each time constant; the time constant is found by golden-section search from 3 to 60
 * min. Fewer than two readings fit the rise alone. Null if there is no reading that says anything.
 * @param startC case temperature when the load began, °C: the air around it
 * @param oneReadingTauMin time constant where a single reading cannot tell it, min
 */
export function fitHeat(
  readings: readonly CaseReading[],
  ratedA: number,
  ambientC: number,
  { startC = ambientC, oneReadingTauMin = usualTauMin } = {},
): HeatFit | null {
  const useful = readings.filter((r) => r.rpm > 0 && r.minutes > 0)
  if (useful.length === 0) return null
  const fitted = (tauMin: number): RiseFit => fitRise(useful, ratedA, { ambientC, startC, tauMin })
  const tauMin = useful.length >= 2 ? smallestBetween(3, 60, (tau) => fitted(tau).sum) : oneReadingTauMin
  const { riseK, sum, bottom } = fitted(tauMin)
  const residualK = Math.sqrt(sum / useful.length)
  return {
    heat: { riseK, tauMin },
    residualK,
    riseWithinK: (1.96 * Math.max(residualK, probeK)) / Math.sqrt(bottom),
    readings: useful.length,
    tauFitted: useful.length >= 2,
  }
}
