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
export const hotOutputAtRatedSpeedA = (ratedA: number, hotShare: number): number => hotOutputA(ratedA, ratedRpm, hotShare)
