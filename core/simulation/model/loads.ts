/**
 * Loads are quite dark at this share of the voltage at which they are cut off, and fade out over the last
 * volt above it.
 */
const darkShare = 8 / 10.5
const darkAt12V = 8

/**
 * Voltage at which loads are quite dark, V.
 * @param cutOffV at which they are cut off; null if nothing cuts them off
 */
export const darkBelowV = (cutOffV: number | null, scale: number): number =>
  cutOffV === null ? darkAt12V * scale : darkShare * cutOffV

/** Current of loads at a voltage, A: a bus near zero still has a solution. A draw below 0 does not fade. */
export function fadedA(amps: number, v: number, darkV: number, scale: number): number {
  const above = v - darkV
  if (above >= scale || amps < 0) return amps
  return above <= 0 ? 0 : (amps * above) / scale
}
