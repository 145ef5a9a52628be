import SunCalc from 'suncalc'

/** Power on a panel and air temperature for each hour of a span, W/m² and °C. */
export interface Weather {
  /** First hour, ms since 1970 in UTC. */
  readonly startMs: number
  /** Irradiance on the tilted panel, W/m², mean of each hour. */
  readonly panelWm2: Float64Array
  readonly airC: Float64Array
  /** Where it comes from, in words. */
  readonly source: string
}

/** Height of the sun above the horizon, rad, and its bearing from south, west positive, rad. */
export const sunAt = (
  ms: number,
  latitude: number,
  longitude: number,
): { readonly altitude: number; readonly azimuth: number } =>
  SunCalc.getPosition(new Date(ms), latitude, longitude)

const albedo = 0.2

/**
 * Irradiance on a panel tilted towards the equator, W/m²: beam by its angle, diffuse from an isotropic sky, and the
 * reflection of the ground.
 * @param beamWm2 direct normal @param diffuseWm2 diffuse horizontal @param tiltDeg from flat
 */
export function onPanel(
  beamWm2: number,
  diffuseWm2: number,
  altitude: number,
  azimuth: number,
  tiltDeg: number,
  latitude: number,
): number {
  const tilt = (tiltDeg * Math.PI) / 180
  const sinAltitude = Math.max(0, Math.sin(altitude))
  // A panel on the southern half looks north.
  const facing = latitude >= 0 ? Math.cos(azimuth) : -Math.cos(azimuth)
  const incidence = sinAltitude * Math.cos(tilt) + Math.cos(altitude) * Math.sin(tilt) * facing
  const beam = altitude > 0 ? beamWm2 * Math.max(0, incidence) : 0
  return (
    beam +
    diffuseWm2 * ((1 + Math.cos(tilt)) / 2) +
    (beamWm2 * sinAltitude + diffuseWm2) * albedo * ((1 - Math.cos(tilt)) / 2)
  )
}

const hourMs = 3_600_000

/**
 * Clear sky at an hour, direct normal and diffuse horizontal, W/m². Air mass by Kasten and Young (1989); beam
 * 1353 · 0.7^(AM^0.678) (Meinel, 1976); a tenth of it diffuse.
 */
export function clearSky(altitude: number): { readonly beam: number; readonly diffuse: number } {
  if (altitude <= 0) return { beam: 0, diffuse: 0 }
  const degrees = (altitude * 180) / Math.PI
  const airMass = 1 / (Math.sin(altitude) + 0.50572 * (degrees + 6.07995) ** -1.6364)
  const beam = 1353 * 0.7 ** (airMass ** 0.678)
  return { beam, diffuse: 0.1 * beam }
}

/**
 * Weather of clear or hazy days at one temperature: a day repeated.
 * @param clearness share of the clear-sky power, 0 to 1
 * @param swingC half the difference between afternoon and dawn, °C
 */
export function clearDays({
  dayMs,
  days,
  latitude,
  longitude,
  tiltDeg,
  clearness,
  meanC,
  swingC,
}: {
  dayMs: number
  days: number
  latitude: number
  longitude: number
  tiltDeg: number
  clearness: number
  meanC: number
  swingC: number
}): Weather {
  const hours = days * 24
  const panelWm2 = new Float64Array(hours)
  const airC = new Float64Array(hours)
  for (let h = 0; h < hours; h++) {
    if (clearness > 0) {
      const { altitude, azimuth } = sunAt(dayMs + (h % 24) * hourMs + hourMs / 2, latitude, longitude)
      const { beam, diffuse } = clearSky(altitude)
      panelWm2[h] = clearness * onPanel(beam, diffuse, altitude, azimuth, tiltDeg, latitude)
    }
    airC[h] = meanC - swingC * Math.cos(((h % 24) - 3) * (Math.PI / 12))
  }
  return { startMs: dayMs, panelWm2, airC, source: 'clear-sky day for the latitude' }
}
