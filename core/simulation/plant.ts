import { elementAt } from '#core/collections/held'
import type { AlternatorHeat } from '#core/physics/alternator'
import type { OcvCurve } from '#core/physics/lfp'

/** Charge stages of a unit, V at the battery's nominal voltage. */
export interface Stages {
  readonly maxA: number
  readonly absorptionV: number
  readonly absorptionH: number
  /** Null: it stops after absorption and starts again when the bus falls to `restartV`. */
  readonly floatV: number | null
  readonly restartV: number
  /** Current at which absorption ends, A. */
  readonly tailA: number
}

export interface LfpPlant {
  readonly ah: number
  readonly nominalV: number
  /** Resistance with BMS at 25 °C, Ω. */
  readonly ohm: number
  readonly kg: number
  /** The maker's own resting curve; null for the usual one. */
  readonly curve: OcvCurve | null
  /** Draw of its BMS and self-discharge, A. */
  readonly ownA: number
  /** Lowest temperature at which the cells may be charged, °C. */
  readonly coldLimitC: number
  readonly bms: {
    readonly overV: number
    readonly overReturnV: number
    readonly underV: number
    readonly underReturnV: number
    readonly maxDischargeA: number
    readonly overCurrentS: number
    /** Charge gate by temperature, °C; null if the BMS has none. */
    readonly coldC: number | null
    readonly coldReturnC: number
    readonly hotC: number
    readonly hotReturnC: number
  }
  readonly heater: { readonly watts: number; readonly startC: number } | null
  /**
   * Share of the charge stop and discharge stop on the lithium side of a hybrid bank, V; null if there are
   * none.
   */
  readonly stops: { readonly chargeV: number; readonly dischargeV: number } | null
}

export interface LeadPlant {
  /** 10 h capacity as new, Ah, remaining share (0 to 1), and its resistance as a multiple of new. */
  readonly c10: number
  readonly health: number
  readonly ageing: number
  readonly cells: number
  /** Self-discharge current, A: larger if it is weak. */
  readonly ownA: number
  /** Resistance terms against flooded: 0.6 for AGM and gel. */
  readonly resistance: number
}

export interface AlternatorPlant {
  readonly ratedA: number
  readonly regulator: 'fixed' | 'compensated' | 'computer' | 'external'
  readonly regulatorV: number
  /** Minutes at volts on a drive, repeated while the engine runs; for a computer-controlled machine. */
  readonly trace: readonly { readonly minutes: number; readonly volts: number }[]
  readonly hotShare: number
  /** Current limit, A; null if there is none. */
  readonly limitA: number | null
  readonly idleRpm: number
  readonly cruiseRpm: number
  readonly vehicleA: number
  /** Null if its heat hardly depends on the current. */
  readonly heat: AlternatorHeat | null
  readonly ambientC: number
  /**
   * An external regulator lowers its voltage to this once the house battery takes little, V; null for one
   * that does not.
   */
  readonly floatV: number | null
  /** Folds its output back as the case nears the limit. */
  readonly foldsBack: boolean
}

export type LinkPlant =
  | { readonly kind: 'closed' | 'solenoid'; readonly ohm: number }
  | { readonly kind: 'diode'; readonly ohm: number; readonly dropV: number }
  | {
      readonly kind: 'vsr'
      readonly ohm: number
      readonly closesV: number
      readonly opensV: number
      readonly delayS: number
      readonly bothWay: boolean
    }
  | {
      readonly kind: 'duty'
      readonly ohm: number
      readonly opensAboveA: number
      readonly sensesS: number
      readonly offS: number
    }
  | {
      readonly kind: 'dcdc'
      readonly ohm: number
      readonly stages: Stages
      readonly efficiency: number
      readonly lowestV: number
      readonly wire: boolean
      readonly backFeed: boolean
    }
  | { readonly kind: 'none' }

/**
 * One alternator with its starting battery and its link to the house; a starting side without an alternator
 * if there is none.
 */
export interface SidePlant {
  /** Path of its link in the job. */
  readonly id: string
  readonly name: string
  readonly nominalV: number
  readonly alternator: AlternatorPlant | null
  readonly startLead: LeadPlant | null
  /** Draw of the starting side with the key off, A. */
  readonly standbyA: number
  readonly link: LinkPlant
}

export interface SolarPlant {
  readonly watts: number
  readonly pwm: boolean
  /** Current at maximum power in full sun, A: a PWM controller passes this. */
  readonly impA: number
  readonly derate: number
  readonly shade: number
  readonly stages: Stages
  readonly ohm: number
}

/** Another source: this many amperes up to a voltage, for this many hours of each day. */
export interface SourcePlant {
  readonly amps: number
  readonly volts: number
  readonly hours: number
}

/** A system for the simulation. Plain data in SI units at the voltages of its bus. */
export interface Plant {
  readonly name: string
  readonly lfp: LfpPlant | null
  /** Lead on the house bus: the old bank as found, or the lead of a hybrid. */
  readonly houseLead: LeadPlant | null
  /** Every alternator with its starting battery and its link: a side each of a star around the house bus. */
  readonly sides: readonly SidePlant[]
  readonly chargers: readonly {
    readonly name: string
    readonly stages: Stages
    readonly ohm: number
    readonly efficiency: number
    readonly powerFactor: number
    readonly supplyV: number
  }[]
  /** Share of the current of all mains chargers that the generators can feed, 0 to 1. */
  readonly generatorShare: number
  readonly solar: readonly (SolarPlant & { readonly name: string })[]
  readonly sources: readonly (SourcePlant & { readonly name: string })[]
  /** DC loads by hour of the day, A at nominal voltage, and AC loads, W at the inverter's output. */
  readonly dcA: readonly number[]
  readonly acW: readonly number[]
  readonly inverterEfficiency: number
  /** Inverter switched on with nothing to do, W, by hour. */
  readonly idleW: readonly number[]
  /** Voltage at which the loads are cut off, V; null if nothing cuts them off. */
  readonly loadsOffV: number | null
  readonly place: {
    readonly kind: 'cabin' | 'locker' | 'engine' | 'bilge'
    readonly coldestC: number
    readonly hottestC: number
    readonly insulated: boolean
  }
  /** Assumptions of the plant, in words. */
  readonly assumed: readonly string[]
}

/**
 * Current of a plant's loads in their heaviest hour at the nominal voltage of its house bus, A, with inverters and
 * their own draw.
 */
export function mostLoadA({ dcA, acW, idleW, inverterEfficiency, lfp, houseLead }: Plant): number {
  const nominalV = lfp?.nominalV ?? 2 * (houseLead?.cells ?? 6)
  return Math.max(
    ...dcA.map((amps, h) => amps + (elementAt(acW, h) / inverterEfficiency + elementAt(idleW, h)) / nominalV),
  )
}
