import { clearDays, type Weather } from './sun'

interface Month {
  readonly days: number
  /** Mean air, °C. */
  readonly meanC: number
}

/** Mean air of each month in the weather file of Port Larkspur, the shop's harbour. */
const months: readonly Month[] = [
  { days: 31, meanC: 3.8 },
  { days: 28, meanC: 4.8 },
  { days: 31, meanC: 5.8 },
  { days: 30, meanC: 8.8 },
  { days: 31, meanC: 12.9 },
  { days: 30, meanC: 16.3 },
  { days: 31, meanC: 16.8 },
  { days: 31, meanC: 17.8 },
  { days: 30, meanC: 16 },
  { days: 31, meanC: 13.1 },
  { days: 30, meanC: 6.4 },
  { days: 31, meanC: 5.4 },
]
/** Half the difference between afternoon and dawn in that file, °C. */
const swingC = 1.3
const dayMs = 86_400_000

/**
 * A year of average months, each a day repeated: warm and cold spells are not in it.
 * @param clearness share of the clear-sky sun in every month, 0 to 1
 */
export function averageYear({
  latitude,
  longitude,
  tilt,
  clearness,
}: {
  readonly latitude: number
  readonly longitude: number
  readonly tilt: number
  readonly clearness: number
}): Weather {
  const startMs = Date.UTC(2025, 0, 1) - Math.round(longitude / 15) * 3_600_000
  const panelWm2 = new Float64Array(365 * 24)
  const airC = new Float64Array(365 * 24)
  let dayOfYear = 0
  for (const { days, meanC } of months) {
    const middleMs = startMs + (dayOfYear + Math.floor(days / 2)) * dayMs
    const where = { latitude, longitude, tiltDeg: tilt, clearness }
    const day = clearDays({ dayMs: middleMs, days: 1, ...where, meanC, swingC })
    for (const end = dayOfYear + days; dayOfYear < end; dayOfYear++) {
      panelWm2.set(day.panelWm2, dayOfYear * 24)
      airC.set(day.airC, dayOfYear * 24)
    }
  }
  return {
    startMs,
    panelWm2,
    airC,
    source: 'monthly averages of Port Larkspur, no warm or cold spells',
  }
}
