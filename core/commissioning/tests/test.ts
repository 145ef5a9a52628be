import { firstOf } from '#core/collections/held'
import type { Unit as Quantity } from '#core/units/units'
import type { Instrument } from '../meters'
import type { Rig } from '../rig'
import type { TestState } from '../states'

/** Where an instrument is put: between two posts, round one run, or round all runs that begin at a post. */
type Probe =
  | { readonly kind: 'volts'; readonly from: string; readonly to: string }
  | { readonly kind: 'amps'; readonly run: string }

export type Measured = 'volts' | 'amps' | 'celsius' | 'size' | 'ampere-hours' | 'answer'

/** What a reading says about a part through the years: a logbook keeps it under this, by the name of the part. */
export interface KeptAs {
  readonly quantity: 'restingVoltage' | 'capacity' | 'caseTemperature'
  readonly part: string
}

/** One thing to be read, and how the network says what it must be. */
export interface ProofTest {
  /** `drop-main-lead`, `absorb-volts-charger-1`. */
  readonly id: string
  readonly title: string
  /** In which order it is done where nothing asks for another. */
  readonly group: TestGroup
  readonly state: TestState
  readonly quantity: Measured
  readonly unit: Quantity
  readonly instrument: Instrument
  /** What is put where, in words. */
  readonly how: string
  /** Minutes of work once the state is set up, and minutes after that while it goes on by itself. */
  readonly minutes: number
  readonly waits: number
  readonly probes: readonly Probe[]
  /** What is read, by what the probes see and how the rig stands. */
  readonly read: (seen: readonly number[], rig: Rig) => number
  /** Whether it is essential wherever a job has it. */
  readonly always?: true
  readonly keptAs?: KeptAs
  /** The run it says most about; null if it is about none. */
  readonly run: string | null
  /** Runs whose drop it holds, by their ids. */
  readonly covers: readonly string[]
  /** What is looked at in one go, where it is more than one thing. */
  readonly list?: readonly WalkItem[]
}

/** One thing that is looked at on the way round. */
export interface WalkItem {
  /** Where it is, in words. */
  readonly place: string
  readonly words: string
  /** Ids of the tests that it is by itself. */
  readonly tests: readonly string[]
}

export const testGroups = [
  'batteries',
  'quiet',
  'looks',
  'loads',
  'chargers',
  'engine',
  'protections',
  'monitor',
] as const
export type TestGroup = (typeof testGroups)[number]

export const testGroupNames: Readonly<Record<TestGroup, string>> = {
  batteries: 'Each battery alone',
  quiet: 'Everything off',
  looks: 'Walk-round',
  loads: 'Under load',
  chargers: 'Charging',
  engine: 'Engine running',
  protections: 'Protections',
  monitor: 'Monitor',
}

export const volts = (from: string, to: string): Probe => ({ kind: 'volts', from, to })
export const amps = (run: string): Probe => ({ kind: 'amps', run })

/** What the first probe sees. */
export const asSeen = (seen: readonly number[]): number => firstOf(seen)
