import type { PartPath } from '#core/job/document'
import type { fittingPlaces, studs } from '#core/job/parts/network'
import type { FuseFamily } from '#core/physics/fuses'

/** Whether something stays, is fitted, or is taken out. */
export type PartState = 'found' | 'new' | 'goes'

export type PostKind =
  | 'battery'
  | 'terminal'
  | 'bar'
  | 'chassis'
  | 'fuse'
  | 'switch'
  | 'relay'
  | 'stop'
  | 'shunt'
  | 'plug'
  /** Where a fitting is proposed that is not there. */
  | 'joint'

/** A part at a post that is more than a stud. */
export interface Fitting {
  /** `F1`, `S1`; empty if it has none. */
  readonly number: string
  readonly family: FuseFamily | null
  /** Its rated current, A; null if unknown. */
  readonly ratedA: number | null
  /** Whether it exists with an unknown rating: `ratedA` is then a typical one. */
  readonly isRatingOpen: boolean
  /** The largest current it interrupts at the voltage there, A; null if it interrupts none. */
  readonly aicA: number | null
  /** The largest conductor it takes, mm²; null if none is stated. */
  readonly mostMm2: number | null
  /** Cable between the source and it, mm, if set; null for the length of the run. */
  readonly distanceMm: number | null
  readonly sheathed: boolean
  /** Whether it is the separate fuse of one battery in a bank of several. */
  readonly isOfOneBattery: boolean
  /** Whether it is the second fuse of a cable, at its far end. */
  readonly isAtFarEnd: boolean
  /** Why it is there, in a sentence. */
  readonly reason: string
}

export type FittingPlace = keyof typeof fittingPlaces
export type Stud = keyof typeof studs

/** Where a lug lands. */
export interface Post {
  readonly id: string
  readonly kind: PostKind
  /** The kind of fitting that belongs there; another than `kind` where it is left out. */
  readonly intended: PostKind
  readonly name: string
  readonly pole: 'positive' | 'negative'
  /** The part of the job it belongs to; null for parts that the wiring adds. */
  readonly of: PartPath | null
  readonly state: PartState
  readonly fitting: Fitting | null
  /** Its place; null if unknown. */
  readonly place: FittingPlace | null
  /** Thread of its stud; null if it is the usual one for the cable. */
  readonly stud: Stud | null
  /** The post of the other pole to which a short here would go. */
  readonly opposite: string
  /** Nominal voltage there, V. */
  readonly nominalV: number
  /** Fields set by hand. */
  readonly set: readonly string[]
}

/** The fuse panel that is there: the one load that is no part of the survey. */
export const panelId = 'panel'

export type Role = 'main' | 'branch' | 'charge' | 'cranking' | 'return' | 'bond'

/** Where a value of a run comes from. */
export type ValueSource = 'set' | 'found' | 'usual' | 'open' | 'sized'

/** A conductor between two posts. */
export interface Run {
  readonly id: string
  /** `W1`; its own return is `W1−`. */
  readonly number: string
  readonly role: Role
  readonly from: string
  readonly to: string
  readonly state: PartState
  /** The part it serves; null if it serves all. */
  readonly of: PartPath | null
  /** The run there whose return it is; null if it is none. */
  readonly returnOf: string | null
  /** The run whose size it has at least: the one it continues or returns; null if there is none. */
  readonly like: string | null
  /** Which end of a DC-DC it serves; null if it serves none or both. */
  readonly side: 'input' | 'output' | null
  /** Cable of the survey that it is; null if the survey has none. */
  readonly cable: PartPath | null
  /** One-way length, m. */
  readonly lengthM: number
  /** Area of each conductor, mm²; null if the chassis, the hull or a stud is the conductor. */
  readonly areaMm2: number | null
  /** Whether it is no cable but the stud on which a fuse sits. */
  readonly isStud: boolean
  /** Conductors side by side. */
  readonly count: number
  /** Length of the shortest conductor if they differ, m; null if all have the length of the run. */
  readonly shortestM: number | null
  readonly material: 'copper' | 'aluminium'
  readonly insulationC: number
  readonly engineSpace: boolean
  /** Hottest air along it, °C. */
  readonly airC: number
  readonly bundled: number
  readonly lengthKnown: ValueSource
  readonly areaKnown: ValueSource
  /** Least current it must carry, A: the output of its source, even if less flows. */
  readonly leastA: number
  /** Resistance of the fittings it ends in, Ω, counted with it. */
  readonly fittingOhm: number
  /** Resistance that was measured, fittings and joints with it, Ω; null if it is calculated. */
  readonly measuredOhm: number | null
}

interface UnitBase {
  readonly id: string
  readonly name: string
  readonly of: PartPath | null
  readonly plus: string
  readonly minus: string
  readonly state: PartState
}

export interface BatteryUnit extends UnitBase {
  readonly kind: 'battery'
  readonly chemistry: 'lithium' | 'lead'
  /** Whether it is of the house, turns an engine, or is kept full as a reserve. */
  readonly serves: 'house' | 'engine' | 'reserve'
  /** Electromotive force when low, rested and full, V. */
  readonly lowV: number
  readonly restV: number
  readonly fullV: number
  /** Resistance, and its part that acts in a short, Ω. */
  readonly ohm: number
  readonly shortOhm: number
  /** Resistance against charging, Ω. */
  readonly chargingOhm: number
  readonly label: string
}

/** A source with a voltage and a largest current: a mains charger, a solar controller, another source. */
export interface SourceUnit extends UnitBase {
  readonly kind: 'source'
  readonly from: 'mains' | 'sun' | 'other'
  readonly setV: number
  readonly mostA: number
}

export interface AlternatorUnit extends UnitBase {
  readonly kind: 'alternator'
  readonly setV: number
  /** Its warm output, A. */
  readonly idleA: number
  readonly cruiseA: number
  readonly ratedA: number
  /** Draw of engine and lights, A. */
  readonly drawA: number
}

export interface DcdcUnit extends UnitBase {
  readonly kind: 'dcdc'
  readonly inPlus: string
  readonly inMinus: string
  readonly setV: number
  readonly mostA: number
  /** 0 to 1. */
  readonly efficiency: number
  readonly lowestInputV: number
  /** The machine while which it runs; null if it runs while anything charges the house, from the house. */
  readonly alternator: string | null
}

export interface InverterUnit extends UnitBase {
  readonly kind: 'inverter'
  /** Its input from the battery at full power and at its surge, W. */
  readonly takesW: number
  readonly surgeW: number
  readonly surgeS: number
  readonly lowestV: number
}

export interface LoadUnit extends UnitBase {
  readonly kind: 'load'
  readonly amps: number
  /** Current when it starts, as a multiple. */
  readonly surge: number
  /** Whether its circuits have fuses of their own there. */
  readonly isPanel: boolean
}

interface StarterUnit extends UnitBase {
  readonly kind: 'starter'
  readonly amps: number
}

/** A diode isolator: current goes from `plus` to `out`, and never back. */
export interface DiodeUnit extends UnitBase {
  readonly kind: 'diode'
  readonly out: string
  readonly dropV: number
}

export type WiringUnit =
  BatteryUnit | SourceUnit | AlternatorUnit | DcdcUnit | InverterUnit | LoadUnit | StarterUnit | DiodeUnit

/** A part of the survey that is taken out, with its replacement. */
export interface Gone {
  readonly id: string
  readonly name: string
  readonly of: PartPath
  /** Its kind. */
  readonly was: 'battery' | 'source' | 'inverter' | 'dcdc' | 'diode' | 'link'
  readonly instead: string | null
}

/** The wiring of a job: posts, runs and units. Plain data. */
export interface Network {
  readonly posts: readonly Post[]
  readonly runs: readonly Run[]
  readonly units: readonly WiringUnit[]
  readonly gone: readonly Gone[]
  readonly lines: readonly SignalLine[]
  /** The post whose voltage is zero. */
  readonly ground: string
  /** Temperature at which cables are counted, °C. */
  readonly cableC: number
  /** Current that the house bank gives for hours, A. */
  readonly bankA: number
  /** Relays that are closed in a case only while the alternator of theirs runs, by post. */
  readonly relays: readonly { readonly post: string; readonly alternator: string }[]
}

/** The purpose of a signal line: it stops a source, starts a unit, or measures a voltage. */
export type LineKind = 'stop' | 'run' | 'sense'

/** A thin line that carries no current that counts. */
export interface SignalLine {
  readonly id: string
  /** `L1`. */
  readonly number: string
  readonly kind: LineKind
  /** The part at which it ends. */
  readonly of: PartPath
  readonly name: string
  /** Its fuse at the start, A; null if a signal terminal limits the current. */
  readonly fuseA: number | null
  /** Whether it is there already, as the survey says. */
  readonly state: PartState
}
