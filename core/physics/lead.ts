/**
 * Typical weight of a 12 V lead-acid battery for each Ah (20 h), kg: 110 Ah weighs about 30 kg. Engineering
 * default.
 */
export const typicalLeadKgPerAh = 0.27

/**
 * Capacity of a lead-acid battery against its 10 h capacity: C ÷ C10 = 1.67 ÷ (1 + 0.67·(I/I10)^0.9)·(1 +
 * 0.005·ΔT). Copetti, Lorenzo, Chenlo, “A general battery model for PV system simulation”, 1993.
 * @param currentOverI10 discharge current as a multiple of the 10 h current, 0 or more
 * @param celsius temperature of the battery, °C
 */
export const copettiCapacity = (currentOverI10: number, celsius: number): number =>
  Math.max(0, (1.67 / (1 + 0.67 * Math.max(0, currentOverI10) ** 0.9)) * (1 + 0.005 * (celsius - 25)))

/**
 * 20 h capacity as a multiple of the 10 h capacity, where C20 ÷ C10 = copettiCapacity((C20 ÷ C10) ÷ 2) at 25
 * °C.
 */
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

/**
 * Terminal voltage of a 2 V cell on discharge, V (Copetti 1993).
 * @param amps drawn, 0 or more
 * @param soc 0 to 1
 */
export const copettiDischargeV = (amps: number, soc: number, c10: number, celsius: number): number =>
  2.085 -
  0.12 * (1 - soc) -
  (amps / c10) * (4 / (1 + amps ** 1.3) + 0.27 / soc ** 1.5 + 0.02) * (1 - 0.007 * (celsius - 25))

/**
 * Terminal voltage of a 2 V cell on charge, V (Copetti 1993).
 * @param amps into the cell, 0 or more
 * @param soc 0 to less than 1
 */
export const copettiChargeV = (amps: number, soc: number, c10: number, celsius: number): number =>
  2 +
  0.16 * soc +
  (amps / c10) * (6 / (1 + amps ** 0.86) + 0.48 / (1 - soc) ** 1.2 + 0.036) * (1 - 0.025 * (celsius - 25))

/** Voltage of a 2 V cell above which it gasses, V (Copetti 1993). */
export const copettiGassingV = (amps: number, c10: number, celsius: number): number =>
  (2.24 + 1.97 * Math.log(1 + Math.max(0, amps) / c10)) * (1 - 0.002 * (celsius - 25))

/**
 * Share of the charge current that is stored, 0 to 1 (Copetti 1993).
 * @param currentOverI10 charge current as a multiple of the 10 h current
 */
export const copettiChargeEfficiency = (currentOverI10: number, soc: number): number =>
  Math.max(0, 1 - Math.exp((20.73 / (currentOverI10 + 0.55)) * (soc - 1)))

/**
 * Current that a lead-acid battery loses inside, A: 0.2 % of its capacity a day when healthy, and a part that grows
 * with the square of its lost capacity, up to 3 % a day. Engineering default: a weak battery drains the batteries
 * joined to it.
 * @param health remaining share of its capacity, 0 to 1
 */
export const leadLeakA = (c10: number, health: number): number =>
  (c10 * (0.002 + 0.03 * (1 - health) ** 2)) / 24
