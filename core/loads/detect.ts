import { elementAt, firstOf, lastOf } from '#core/collections/held'

/** Seconds, and the current of the loads then, A. */
interface LoadSample {
  readonly t: number
  readonly amps: number
}

/** One reading of a shunt. Current into the battery is positive. */
export interface Reading {
  /** Seconds since the recording began. */
  readonly t: number
  readonly amps: number
  readonly volts: number
}

/** A change of the load current, seen in the readings. */
export interface CurrentStep {
  /** When it began, s. */
  readonly t: number
  /** Load current after less load current before, A: positive when something was switched on. */
  readonly deltaA: number
  /** Largest current above the level before, A, for a step up. */
  readonly peakA: number
  /** Load current after it, A. */
  readonly levelA: number
}

/** Smallest change that is looked for, A. */
const leastStepA = 0.5
/** A change that settles at less than this was a blip. */
const leastSettledA = 0.38
const window = 24
const settleSamples = 6
const mostSettleS = 10

const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length
const spread = (values: readonly number[]): number => {
  const m = mean(values)
  return Math.sqrt(mean(values.map((v) => (v - m) ** 2)))
}

/**
 * Finds steps in a stream of readings as they come. Two-sided CUSUM (Page, 1954) about the mean of the last
 * quiet samples notices a change; the new level is taken once the current has settled, so that inrush is not
 * taken for the load; two changes in one settling are parted at the jump between them. Noise is estimated
 * from differences of neighbouring samples, so that slow drift does not count. Made for one to ten readings a
 * second.
 */
export class StepDetector {
  private quiet: number[] = []
  private pending: LoadSample[] = []
  private settling: LoadSample[] | null = null
  private up = 0
  private down = 0
  private noiseA = 0.1
  private last: number | null = null

  /** Load current now, A: mean of the quiet samples; null before the first reading. */
  get levelA(): number | null {
    return this.quiet.length > 0 ? mean(this.quiet) : null
  }

  /** Takes the next reading; gives the steps it completes, most often none. */
  push({ t, amps }: Reading): readonly CurrentStep[] {
    const load = -amps
    if (this.settling) {
      this.settling.push({ t, amps: load })
      return this.settle(this.settling)
    }
    if (this.quiet.length < 4) {
      this.quiet.push(load)
      return []
    }
    const slack = Math.max(leastStepA / 2, 1.5 * this.noiseA)
    const off = load - mean(this.quiet)
    this.up = Math.max(0, this.up + off - slack)
    this.down = Math.max(0, this.down - off - slack)
    if (this.up === 0 && this.down === 0) {
      this.hear(load)
      this.quiet = [...this.quiet, ...this.pending.map((sample) => sample.amps), load].slice(-window)
      this.pending = []
      return []
    }
    this.pending.push({ t, amps: load })
    if (Math.max(this.up, this.down) > Math.max(1.5 * leastStepA, 5 * this.noiseA)) {
      const samples = this.pending
      this.pending = []
      this.up = this.down = 0
      return this.settle(samples)
    }
    return []
  }

  /** Takes a quiet sample into the estimate of the noise: neighbours differ by 1.128 σ on average. */
  private hear(load: number): void {
    if (this.last !== null)
      this.noiseA = Math.max(0.02, this.noiseA + 0.03 * (Math.abs(load - this.last) / 1.128 - this.noiseA))
    this.last = load
  }

  private settle(samples: LoadSample[]): readonly CurrentStep[] {
    this.settling = samples
    return this.hasSettled(samples) ? this.finish(samples) : []
  }

  private hasSettled(samples: readonly LoadSample[]): boolean {
    if (samples.length < settleSamples) return false
    if (lastOf(samples).t - firstOf(samples).t > mostSettleS) return true
    const tail = samples.slice(-settleSamples).map((s) => s.amps)
    const trend = mean(tail.slice(-3)) - mean(tail.slice(0, 3))
    return (
      Math.abs(trend) < Math.max(0.1, 1.4 * this.noiseA) && spread(tail) < Math.max(0.08, 1.6 * this.noiseA)
    )
  }

  private finish(samples: readonly LoadSample[]): readonly CurrentStep[] {
    const before = mean(this.quiet)
    const end = samples.slice(-4).map((s) => s.amps)
    const after = mean(end)
    const steps: CurrentStep[] = []
    const second = this.secondStart(samples)
    if (second === null) {
      steps.push(this.step(samples, before, after))
    } else {
      const middle = mean(samples.slice(second - 2, second).map((s) => s.amps))
      steps.push(
        this.step(samples.slice(0, second), before, middle),
        this.step(samples.slice(second), middle, after),
      )
    }
    this.settling = null
    this.last = null
    const real = steps.filter((step) => Math.abs(step.deltaA) >= leastSettledA)
    this.quiet = real.length > 0 ? end : [...this.quiet, ...end].slice(-window)
    return real
  }

  private step(samples: readonly { t: number; amps: number }[], before: number, after: number): CurrentStep {
    const peak = after > before ? Math.max(after, ...samples.map((s) => s.amps)) - before : 0
    return { t: firstOf(samples).t, deltaA: after - before, peakA: peak, levelA: after }
  }

  /**
   * Where a second change began on the way: a jump far beyond the noise and beyond the creep of an inrush
   * before it.
   */
  private secondStart(samples: readonly { t: number; amps: number }[]): number | null {
    const jump = (i: number): number => elementAt(samples, i).amps - elementAt(samples, i - 1).amps
    let best: number | null = null
    for (let i = 3; i <= samples.length - 3; i++) {
      const creep = Math.max(Math.abs(jump(i - 1)), Math.abs(jump(i - 2)))
      const size = Math.abs(jump(i))
      if (
        size > Math.max(0.7, 5 * this.noiseA, 2.5 * creep) &&
        (best === null || size > Math.abs(jump(best)))
      )
        best = i
    }
    return best
  }
}

/** A load that was found in the steps. */
export interface FoundLoad {
  readonly id: string
  /** Running current, A. */
  readonly amps: number
  /** Largest current when starting, as a multiple of the running current. */
  readonly surge: number
  /** Each time it ran, s; `off` null while it runs. */
  readonly runs: readonly { readonly on: number; readonly off: number | null }[]
  readonly kind: 'steady' | 'cycling'
  /** Share of the time it runs, per cent, for one that cycles. */
  readonly duty: number
}

interface Open {
  amps: number[]
  peak: number
  runs: { on: number; off: number | null }[]
}

const alike = (a: number, b: number): boolean => Math.abs(a - b) <= Math.max(0.3, 0.12 * Math.max(a, b))

/**
 * Pairs steps into loads: each step down ends the running load nearest in size; a step up of a size known and
 * not running is that load again.
 */
export function loadsFrom(steps: readonly CurrentStep[]): readonly FoundLoad[] {
  const found: Open[] = []
  for (const { t, deltaA, peakA } of steps) {
    const size = Math.abs(deltaA)
    const isRunning = (load: Open): boolean => lastOf(load.runs).off === null
    const fits = found
      .filter((load) => isRunning(load) === deltaA < 0 && alike(mean(load.amps), size))
      .sort(
        (a, b) =>
          Math.abs(mean(a.amps) - size) - Math.abs(mean(b.amps) - size) ||
          lastOf(b.runs).on - lastOf(a.runs).on,
      )
    const load = fits[0]
    if (deltaA < 0) {
      if (load) {
        lastOf(load.runs).off = t
        load.amps.push(size)
      }
    } else if (load) {
      load.runs.push({ on: t, off: null })
      load.amps.push(size)
      load.peak = Math.max(load.peak, peakA)
    } else {
      found.push({ amps: [size], peak: peakA, runs: [{ on: t, off: null }] })
    }
  }
  return found.map(({ amps, peak, runs }, i) => {
    const level = mean(amps)
    const kind = runs.length >= 2 ? 'cycling' : 'steady'
    return {
      id: `found-${i + 1}`,
      amps: level,
      surge: Math.max(1, peak / level),
      runs,
      kind,
      duty: kind === 'cycling' ? dutyOf(runs) : 100,
    }
  })
}

/** On time over whole cycles: from the first switching on to the last. */
function dutyOf(runs: readonly { on: number; off: number | null }[]): number {
  const whole = runs.slice(0, -1)
  const on = whole.reduce((sum, run) => sum + ((run.off ?? run.on) - run.on), 0)
  const all = lastOf(runs).on - firstOf(runs).on
  return all > 0 ? Math.round((on / all) * 100) : 100
}
