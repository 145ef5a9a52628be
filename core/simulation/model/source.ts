import type { SourcePlant } from '../plant'
import { hoursSince } from '../surroundings'

/** Hour of the day from which other sources run. */
export const sourcesFrom = 10
/** Resistance of a source as the bus sees it, Ω (engineering default). */
const sourceOhm = 0.01

/** Another source than engine, mains and sun: a current up to a voltage, for some hours of each day. */
export class OtherSource {
  amps = 0
  ah = 0
  private endAmps = 0
  runs = false

  constructor(private readonly plant: SourcePlant) {}

  /** Runs or stops as scheduled at an hour of the day. @returns whether that has changed */
  run(hour: number): boolean {
    const before = this.runs
    this.runs = hoursSince(sourcesFrom, hour) < this.plant.hours
    return this.runs !== before
  }

  /** Current into the bus at a voltage, A. */
  ampsAt(v: number): number {
    if (!this.runs) return 0
    const wanted = (this.plant.volts - v) / sourceOhm
    return wanted <= 0 ? 0 : wanted < this.plant.amps ? wanted : this.plant.amps
  }
  settle(v: number): void {
    this.endAmps = this.ampsAt(v)
  }
  accept(dt: number, endShare: number): void {
    this.ah += ((this.amps * (1 - endShare) + this.endAmps * endShare) * dt) / 3600
    this.amps = this.endAmps
  }
}
