import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import type { Reading } from './detect'

/** Equipment of a stand-in vehicle. */
interface Aboard {
  readonly name: string
  readonly amps: number
  /** Peak as it starts, as a multiple; dies away within a second or two. */
  readonly inrush?: number
  /** Switched on and off by the script, s. */
  readonly on: number
  readonly off: number
  /** Cycles by itself while on: seconds running and resting. */
  readonly cycle?: readonly [runS: number, restS: number]
}

/** A switching that really happened in a generated stream. */
export interface TrueStep {
  readonly t: number
  readonly deltaA: number
  readonly name: string
}
interface GeneratedStream {
  readonly readings: readonly Reading[]
  readonly truth: readonly TrueStep[]
}

export const readingsPerSecond = 4
const inrushS = 0.5

/** Numbers of chance from a seed: the same seed gives the same numbers. */
function chance(seed: number): { between(low: number, high: number): number; normal(sigma: number): number } {
  const generator = xoroshiro128plus(seed)
  const uniform = (): number => uniformFloat64(generator)
  return {
    between: (low, high) => low + (high - low) * uniform(),
    normal: (sigma) => sigma * Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform()),
  }
}

/**
 * Readings of a shunt on a vehicle that carries these things: noise, drift, inrush, cycling and the sag of
 * the battery.
 */
function generate(aboard: readonly Aboard[], seconds: number, seed: number, noiseA: number): GeneratedStream {
  const { between, normal } = chance(seed)
  const truth: TrueStep[] = []
  const runs = aboard.flatMap(({ name, amps, inrush = 1, on, off, cycle }) => {
    const spans: { from: number; to: number; amps: number; inrush: number }[] = []
    for (let t = on; t < Math.min(off, seconds);) {
      const to = cycle ? Math.min(off, t + cycle[0]) : off
      spans.push({ from: t, to, amps, inrush })
      if (t > 0) truth.push({ t, deltaA: amps, name })
      if (to < seconds) truth.push({ t: to, deltaA: -amps, name })
      t = cycle ? to + cycle[1] : off
    }
    return spans
  })
  const phase = between(0, 2 * Math.PI)
  const readings = Array.from({ length: seconds * readingsPerSecond }, (_, i): Reading => {
    const t = i / readingsPerSecond
    const drift = 0.25 * Math.sin(phase + t / 140) + 0.1 * Math.sin(t / 37)
    const load = runs.reduce(
      (sum, run) =>
        t < run.from || t >= run.to
          ? sum
          : sum + run.amps * (1 + (run.inrush - 1) * Math.exp(-(t - run.from) / inrushS)),
      0,
    )
    const amps = -(load + drift + normal(noiseA))
    return {
      t,
      amps: Math.round(amps * 100) / 100,
      volts: Math.round((12.72 + amps * 0.012 - t * 0.00002 + normal(0.004)) * 1000) / 1000,
    }
  })
  return { readings, truth: truth.sort((a, b) => a.t - b.t) }
}

/**
 * A vehicle of chance for checking the detection: one thing switched every 12 to 25 s, a fridge that cycles,
 * an inverter that idles.
 */
export function chanceVehicle(seed: number, { seconds = 1200, noiseA = 0.15 } = {}): GeneratedStream {
  const { between } = chance(seed * 7919 + 1)
  const fridgeAt = between(5, 40)
  const aboard: Aboard[] = [
    {
      name: 'Fridge',
      amps: between(3.5, 5.5),
      inrush: 3.5,
      on: fridgeAt,
      off: Infinity,
      cycle: [between(90, 150), between(120, 260)],
    },
    { name: 'Inverter idle', amps: between(0.6, 1.6), on: between(60, 200), off: between(700, 1000) },
  ]
  for (let t = between(12, 25), i = 1; t < seconds - 60; t += between(24, 50), i++) {
    const amps = between(0, 1) < 0.4 ? between(0.5, 2) : between(2, 22)
    aboard.push({
      name: `Load ${i}`,
      amps,
      inrush: between(0, 1) < 0.4 ? between(2, 6) : 1,
      on: t,
      off: t + between(12, 23),
    })
  }
  return generate(aboard, seconds, seed, noiseA)
}

/** The stand-in vehicle of the interface: someone walks it and switches one thing after another. */
export const standInVehicle: readonly Aboard[] = [
  { name: 'Alarm and standby', amps: 0.3, on: 0, off: Infinity },
  { name: 'Fridge', amps: 4.4, inrush: 3.2, on: 14, off: Infinity, cycle: [62, 105] },
  { name: 'Cabin lights', amps: 2.6, on: 30, off: 55 },
  { name: 'Water pump', amps: 6.8, inrush: 4, on: 84, off: 98 },
  { name: 'Inverter idle', amps: 1.1, on: 112, off: 168 },
  { name: 'Kettle through the inverter', amps: 78, inrush: 1.2, on: 126, off: 152 },
  { name: 'Heater fan', amps: 3.3, inrush: 2.4, on: 196, off: 226 },
  { name: 'Deck light', amps: 1.9, on: 252, off: 268 },
  { name: 'Radio, transmitting', amps: 5.4, on: 282, off: 296 },
]
const standInSeconds = 420

/** The whole recording of the stand-in vehicle; the same for the same seed. */
export const standInStream = (seed = 1): GeneratedStream =>
  generate(standInVehicle, standInSeconds, seed, 0.15)
