/** Typical weight of a 12 V lead-acid battery for each Ah (20 h), kg: 110 Ah weighs about 30 kg. Engineering default. */
export const typicalLeadKgPerAh = 0.27

/**
 * Capacity of a lead-acid battery against its 10 h capacity: C ÷ C10 = 1.67 ÷ (1 + 0.67·(I/I10)^0.9)·(1 + 0.005·ΔT).
 * Copetti, Lorenzo, Chenlo, “A general battery model for PV system simulation”, 1993.
 * @param currentOverI10 discharge current as a multiple of the 10 h current, 0 or more
 * @param celsius temperature of the battery, °C
 */
export const copettiCapacity = (currentOverI10: number, celsius: number): number =>
  Math.max(0, (1.67 / (1 + 0.67 * Math.max(0, currentOverI10) ** 0.9)) * (1 + 0.005 * (celsius - 25)))

/** 20 h capacity as a multiple of the 10 h capacity, where C20 ÷ C10 = copettiCapacity((C20 ÷ C10) ÷ 2) at 25 °C. */
export const c20OverC10 = 1.179

/**
 * Capacity that a lead-acid battery gives at a current and temperature, Ah.
 * @param ah20 capacity on its label at the 20 h rate, Ah (above 0)
 * @param amps discharge current, A
 */
export function leadCapacityAh(ah20: number, amps: number, celsius: number): number {
  const c10 = ah20 / c20OverC10
  return c10 * copettiCapacity(amps / (c10 / 10), celsius)
}
