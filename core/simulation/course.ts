import { elementAt } from '#core/collections/held'
import type { Weather } from '#core/weather/sun'
import type { Plant } from './plant'
import { beginsAt, type RunInputs } from './run-kinds'
import { sourcesFrom } from './model/source'
import { hoursSince, type Surroundings } from './surroundings'

const dayS = 86_400
const hourS = 3600

/** Hour at which a generator is started, each day. */
const generatorFrom = 9

/** A stretch of the day in which nothing that is planned changes, s since midnight. */
interface Stretch {
  readonly fromS: number
  readonly toS: number
  /** Hour of the day in its middle: clear of where anything begins or ends, whatever is rounded. */
  readonly middleH: number
  readonly engine: Surroundings['engine']
  readonly engineS: number
  readonly mains: boolean
  readonly supplyShare: number
}

/** Surroundings of the system at each moment of a run, with the end of each stretch. */
export class Course {
  private readonly day: readonly Stretch[]
  private place = 0

  /**
   * @param keepsToPlace whether the surveyed place limits the air: for weather that does not know the place
   */
  constructor(
    private readonly inputs: RunInputs,
    private readonly plant: Plant,
    private readonly sky: Weather,
    private readonly keepsToPlace: boolean,
  ) {
    this.day = stretchesOf(inputs, plant)
    this.place = this.day.findIndex(({ toS }) => toS > beginsAt * hourS)
  }

  /**
   * Surroundings from this many seconds after the start, and the end of that stretch, s; the next stretch after the
   * one requested last.
   */
  next(t: number): { readonly around: Surroundings; readonly untilS: number } {
    const clock = beginsAt * hourS + t
    const day = Math.floor(clock / dayS + 1e-9)
    const inDay = Math.max(0, clock - day * dayS)
    while (
      elementAt(this.day, this.place).toS <= inDay + 1e-6 ||
      elementAt(this.day, this.place).fromS > inDay + 1e-6
    )
      this.place = (this.place + 1) % this.day.length
    const { middleH, toS, engine, engineS, mains, supplyShare } = elementAt(this.day, this.place)
    const at = Math.floor(clock / hourS + 1e-9) % this.sky.airC.length
    const { coldestC, hottestC } = this.plant.place
    const airC = elementAt(this.sky.airC, at)
    return {
      around: {
        hour: middleH,
        engine,
        engineS,
        mains,
        supplyShare,
        loads: this.inputs.loads,
        sunWm2: elementAt(this.sky.panelWm2, at),
        airC: this.keepsToPlace ? Math.min(hottestC, Math.max(coldestC, airC)) : airC,
      },
      untilS: t + toS - inDay,
    }
  }
}

/**
 * The day cut where anything planned begins or ends: hours, the drive, mains, other sources, the voltage over
 * a drive.
 */
function stretchesOf(inputs: RunInputs, { sources, sides, generatorShare }: Plant): Stretch[] {
  const { driveFrom, driveH, idleShare, mainsFrom, mainsH, generatorH } = inputs
  const marks = new Set<number>(Array.from({ length: 25 }, (_, hour) => hour * hourS))
  const mark = (hours: number): void =>
    void marks.add(Math.round((((hours % 24) + 24) % 24) * hourS * 1000) / 1000)
  for (const hours of [
    driveFrom,
    driveFrom + driveH * idleShare,
    driveFrom + driveH,
    mainsFrom,
    mainsFrom + mainsH,
    generatorFrom,
    generatorFrom + generatorH,
  ])
    mark(hours)
  for (const { hours } of sources) [sourcesFrom, sourcesFrom + hours].forEach(mark)
  for (const hours of traceMarks(sides, driveH)) mark(driveFrom + hours)
  const sorted = [...marks].sort((a, b) => a - b)
  return sorted.slice(1).map((toS, i) => {
    const fromS = elementAt(sorted, i)
    const middle = (fromS + toS) / 2 / hourS
    const driven = hoursSince(driveFrom, middle)
    const onMains = hoursSince(mainsFrom, middle) < mainsH
    const onGenerator = !onMains && hoursSince(generatorFrom, middle) < generatorH
    const engine = driven >= driveH ? 'off' : driven < driveH * idleShare ? 'idle' : 'cruise'
    return {
      fromS,
      toS,
      middleH: middle,
      engine,
      engineS: engine === 'off' ? 0 : driven * hourS,
      mains: onMains || onGenerator,
      supplyShare: onMains ? 1 : generatorShare,
    }
  })
}

/** Hours of a drive at which the voltage of a computer-controlled machine moves. */
function traceMarks(sides: Plant['sides'], driveH: number): number[] {
  return sides.flatMap(({ alternator }) => {
    if (alternator?.regulator !== 'computer' || alternator.trace.length === 0) return []
    const hours: number[] = []
    for (let i = 0, at = 0; at < driveH && hours.length < 10_000; i++) {
      at += elementAt(alternator.trace, i % alternator.trace.length).minutes / 60
      hours.push(at)
    }
    return hours
  })
}
