/** Shaft speed at which a machine is rated, rpm (ISO 8854). */
const ratedRpm = 6000
const cutInRpm = 1000
const riseRpm = 1500

/**
 * Largest current of a warm machine at a shaft speed, A: I = rated · k · (1 − e^(−(n − 1000)/1500)).
 * @param ratedA label current, A, stated at 6000 rpm
 * @param shaftRpm speed of the alternator's own shaft, rpm; nothing below 1000
 * @param hotShare k, what a warm machine gives of its label, 0 to 1
 */
export function hotOutputA(ratedA: number, shaftRpm: number, hotShare: number): number {
  return shaftRpm <= cutInRpm ? 0 : ratedA * hotShare * (1 - Math.exp(-(shaftRpm - cutInRpm) / riseRpm))
}

/** Hot output at the rated speed, A: the anchor of the curve. */
export const hotOutputAtRatedSpeedA = (ratedA: number, hotShare: number): number =>
  hotOutputA(ratedA, ratedRpm, hotShare)

/**
 * How an alternator warms: temperature rise of the case at full hot output and rated speed, K, and how fast,
 * min. Engineering defaults; readings replace them.
 */
export interface AlternatorHeat {
  readonly riseK: number
  readonly tauMin: number
}
export const usualHeat: AlternatorHeat = { riseK: 80, tauMin: 15 }
/** Highest case temperature, °C, and of the air around it, °C. Engineering defaults. */
export const caseLimitC = 100
export const underBonnetC = 60
export const openSpaceC = 40

/**
 * Case temperature a loaded alternator settles at, °C: T_amb + ΔT_ref · (0.2 + 0.3x + 0.5x²) · (6000/n)^0.6,
 * with x = I ÷ (0.8 · rated).
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
  return ambientC + riseK * (0.2 + 0.3 * x + 0.5 * x * x) * (ratedRpm / shaftRpm) ** 0.6
}

/**
 * The load at which the case settles at a temperature, A: {@link steadyCaseC} turned round; 0 where the air
 * alone is that warm.
 */
export function loadAtCaseA(
  celsius: number,
  ratedA: number,
  shaftRpm: number,
  ambientC: number,
  { riseK }: AlternatorHeat,
): number {
  if (shaftRpm <= 0) return 0
  const share = (celsius - ambientC) / (riseK * (ratedRpm / shaftRpm) ** 0.6)
  return share <= 0.2 ? 0 : 0.8 * ratedA * (-0.3 + Math.sqrt(0.09 + 2 * (share - 0.2)))
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
export interface HeatFit {
  readonly heat: AlternatorHeat
  /** Root of the mean square difference between readings and model, K. */
  readonly residualK: number
  readonly readings: number
  /** Whether the time constant was fitted too: it takes two readings or more. */
  readonly tauFitted: boolean
}

/**
 * Fits temperature rise and time constant to readings by least squares. The rise is linear in the model and
 * has a closed form for each time constant; the time constant is found by golden-section search from 3 to 60
 * min. Fewer than two readings fit the rise alone. Null where there is no reading that says anything.
 * @param startC case temperature when the load began, °C: the air around it
 */
export function fitHeat(
  readings: readonly CaseReading[],
  ratedA: number,
  ambientC: number,
  startC = ambientC,
): HeatFit | null {
  const useful = readings.filter((r) => r.rpm > 0 && r.minutes > 0)
  if (useful.length === 0) return null
  const unit: AlternatorHeat = { riseK: 1, tauMin: 1 }
  const fitted = (tauMin: number): { riseK: number; sum: number } => {
    let [top, bottom] = [0, 0]
    const rows = useful.map((r) => {
      const warmed = 1 - Math.exp(-r.minutes / tauMin)
      const shape = steadyCaseC(r.amps, ratedA, r.rpm, 0, unit) * warmed
      const above = r.celsius - (startC + (ambientC - startC) * warmed)
      top += shape * above
      bottom += shape * shape
      return { shape, above }
    })
    const riseK = bottom > 0 ? Math.max(1, top / bottom) : usualHeat.riseK
    return { riseK, sum: rows.reduce((sum, { shape, above }) => sum + (above - riseK * shape) ** 2, 0) }
  }
  let tauMin = usualHeat.tauMin
  if (useful.length >= 2) {
    const golden = (Math.sqrt(5) - 1) / 2
    let [low, high] = [3, 60]
    for (let i = 0; i < 40; i++) {
      const [a, b] = [high - golden * (high - low), low + golden * (high - low)]
      if (fitted(a).sum <= fitted(b).sum) high = b
      else low = a
    }
    tauMin = (low + high) / 2
  }
  const { riseK, sum } = fitted(tauMin)
  return {
    heat: { riseK, tauMin },
    residualK: Math.sqrt(sum / useful.length),
    readings: useful.length,
    tauFitted: useful.length >= 2,
  }
}
