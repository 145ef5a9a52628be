import type { FieldPath, PartPath } from '#core/job/document'
import { inSentence } from '#core/units/format'
import type { Unit } from '#core/units/units'
import type { RemedyRef } from '#core/remedies/catalogue'
import type { Origin } from '#core/system/facts'
import type { AlternatorLane, ChargeUnit, Lane, SolarLane, SourceLane } from '#core/system/lanes'
import type { View } from '#core/system/scene'
import type { Together } from '#core/system/together'
import type { System } from '#core/system/system'
import type { Verdict } from '#core/system/verdict'

/** One side of a comparison: a number with its unit, or a word. */
export interface Compared {
  readonly label: string
  readonly value: number | string
  readonly unit: Unit
}

/** The finding of a check in one scene. The words are made only when someone will read them. */
export interface Judgement {
  readonly verdict: Verdict
  /** The actual value and the limit. */
  readonly compared: readonly [Compared, Compared]
  /** Where the limit comes from. */
  readonly limit: Origin
  /** The formula with this job's numbers in it. */
  readonly formula: () => string
  /** The finding in one sentence, with its numbers. */
  readonly summary: () => string
  /** Possible fixes, the simplest first; calculated on demand if that takes long. */
  readonly remedies?: readonly RemedyRef[] | (() => readonly RemedyRef[])
  readonly cautions?: () => readonly string[]
  /** Settings that were found, for the card inside the locker. */
  readonly settings?: () => readonly Setting[]
  /** Values that contradict others and are to be asked for again, with the range in which each would not. */
  readonly asks?: readonly { readonly path: FieldPath; readonly from: number; readonly to: number }[]
}

/** Fixes for a finding. */
export const remediesOf = ({ remedies = [] }: Pick<Judgement, 'remedies'>): readonly RemedyRef[] =>
  typeof remedies === 'function' ? remedies() : remedies

/** A value to be set on a unit, unchanged on its card. */
export interface Setting {
  readonly label: string
  readonly value: number | string
  readonly unit: Unit
}

/** Subjects of checks; each is checked on its own. */
export interface Subjects {
  battery: { readonly name: string; readonly path: PartPath }
  /** The battery that turns an engine. */
  starting: { readonly starting: View<'startingBatteries'>; readonly name: string; readonly path: PartPath }
  device: { readonly device: View<'devices'>; readonly name: string; readonly path: PartPath }
  /** A unit with charge stages: a mains charger, a solar controller, or the DC-DC of a link. */
  unit: { readonly unit: ChargeUnit; readonly lane: Lane; readonly name: string; readonly path: PartPath }
  /** An alternator with the link that leads to the house bank. */
  alternator: { readonly lane: AlternatorLane; readonly name: string; readonly path: PartPath }
  solar: { readonly lane: SolarLane; readonly name: string; readonly path: PartPath }
  /** Wind, water or shaft. */
  source: { readonly lane: SourceLane; readonly name: string; readonly path: PartPath }
  lane: { readonly lane: Lane; readonly name: string; readonly path: PartPath }
  /** A cable that serves a source or an inverter. */
  cable: {
    readonly cable: View<'conductors'>
    readonly lane: Lane | undefined
    readonly name: string
    readonly path: PartPath
  }
  /** A mains charger that feeds a starting battery, alone or besides. */
  startCharger: {
    readonly charger: View<'chargers'>
    readonly starting: View<'startingBatteries'>
    readonly name: string
    readonly path: PartPath
  }
  /** Sources that can charge at the same time. */
  together: Together
  /** A run of the wiring, if the job has parts for its runs. */
  run: {
    readonly view: View<'runs'>
    /** Its id in the wiring: `main-lead`. */
    readonly id: string
    readonly name: string
    readonly path: PartPath
  }
  /** A fuse, switch, relay, shunt, bar or plug of the wiring. */
  fitting: { readonly id: string; readonly name: string; readonly path: PartPath }
  inverter: { readonly inverter: View<'inverters'>; readonly name: string; readonly path: PartPath }
  /** A load that the battery feeds itself. */
  dcLoad: { readonly load: View<'loads'>; readonly name: string; readonly path: PartPath }
}

export interface Check<K extends keyof Subjects = keyof Subjects, Id extends string = string> {
  /** Stable: `charger.absorption`. The part before the dot is the topic. */
  readonly id: Id
  readonly title: string
  /** The subject as a noun inside a sentence, if the title is a question. */
  readonly topic?: string
  readonly about: K
  /** Why it matters, in a sentence. */
  readonly why: string
  /** Also checked if a link joins different voltages; other checks are pointless then. */
  readonly ofMisjoined?: true
  /** It needs a run: checked off the page's own thread, in few scenes. */
  readonly takesTime?: true
  /** Its finding is a forecast for the customer: hours to full, heat, a driving day. */
  readonly foretells?: true
  /** Null when there is nothing of the kind to check in this scene. */
  judge(subject: Subjects[K], system: System): Judgement | null
}

/** Declares a check. The list at the end of its file puts it in the catalogue. */
export const check = <K extends keyof Subjects, const Id extends string>(
  definition: Check<K, Id>,
): Check<K, Id> => definition

/** The title of a check as a thing inside a sentence. */
export const topicOf = ({ title, topic }: Pick<Check, 'title' | 'topic'>): string =>
  topic ?? inSentence(title)

export const number = (label: string, value: number, unit: Unit): Compared => ({ label, value, unit })
export const word = (label: string, value: string): Compared => ({ label, value, unit: '' })

export const physics: Origin = { kind: 'physics', text: 'physics' }
