import type { System } from './system'

/** Settings of the battery monitor, from the bank and the shop's rules. */
interface MonitorSettings {
  readonly capacityAh: number
  /** Above this voltage, with the current under the tail current, the monitor counts the battery as full, V. */
  readonly chargedV: number
  /** Share of the capacity, %. */
  readonly tailPercent: number
  readonly tailA: number
  /** How long both must hold, min. */
  readonly detectionMin: number
  readonly efficiencyPercent: number
  readonly floorPercent: number
}

/** A monitor detects full slightly below the voltage of its source, V at 12 V (engineering default). */
const underAbsorptionV = 0.2
const detectionMin = 3
const efficiencyPercent = 99

/**
 * The lowest absorption voltage of the sources that can fill the bank; that of the battery where none holds one, V.
 */
function leastAbsorptionV({ bank, lanes }: System): number {
  const held = lanes.flatMap((lane) =>
    lane.kind === 'charger'
      ? [lane.charger.absorptionV]
      : lane.kind === 'alternator' && lane.link.kind === 'dcdc'
        ? [lane.link.absorptionV]
        : [],
  )
  return held.length > 0 ? Math.min(...held) : bank.lowV
}

/** The settings that make the monitor's per cent true. */
export function monitorSettings(system: System): MonitorSettings {
  const { bank, rules } = system
  const volts = Math.max(bank.ocv(1), leastAbsorptionV(system) - underAbsorptionV * bank.scale)
  return {
    capacityAh: bank.ah,
    chargedV: Math.round(volts * 100) / 100,
    tailPercent: Math.round(rules.tailRateC * 100),
    tailA: bank.tailA,
    detectionMin,
    efficiencyPercent,
    floorPercent: 100 - rules.usableLithium,
  }
}
