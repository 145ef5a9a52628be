import type { Fields } from './field'
import { alternators } from '#core/job/parts/alternators'
import { houseBank, startingBattery } from '#core/job/parts/batteries'
import { candidate } from '#core/job/parts/candidate'
import { branches, fittings, runs } from '#core/job/parts/network'
import { place, use } from '#core/job/parts/use'
import { chargers, generators } from '#core/job/parts/chargers'
import { links } from '#core/job/parts/links'
import { solar, sources } from '#core/job/parts/sources'
import { conductors, devices, inverters, loads } from '#core/job/parts/wiring'

export * from './field'

/** A kind of part: a station of the walk-round, its fields, and its references. */
export interface PartKind {
  readonly title: string
  readonly one: string
  /** One line for the installer who stands before it. */
  readonly about: string
  readonly fields: Fields
  /** A collection of parts by id; otherwise exactly one. */
  readonly many: boolean
  /** The prefix of its parts' ids: `charger` for `charger-1`. */
  readonly stem?: string
  /** Name of the property that points at another part, and where to. */
  readonly refers?: { readonly field: 'from' | 'of'; readonly label: string; readonly to: readonly string[] }
  /** Surveyed as a table with these columns: each of one field, or of several of which one is asked. */
  readonly columns?: readonly (readonly string[])[]
  /** Not a station of the walk-round: it has a view of its own. */
  readonly elsewhere?: true
  /** Its parts are named after their place, as `main-fuse`, and not numbered. */
  readonly keyed?: true
}

/** Every part of the survey, in walking order. */
export const partKinds = {
  use: {
    title: 'Use',
    one: 'Use',
    about: 'What you run, for how long, and how much battery it uses.',
    fields: use,
    many: false,
  },
  houseBank: {
    title: 'House bank',
    one: 'House bank',
    about: 'The present lead-acid bank.',
    fields: houseBank,
    many: false,
  },
  startingBatteries: {
    title: 'Starting batteries',
    one: 'Starting battery',
    about: 'The battery that starts each engine.',
    fields: startingBattery,
    many: true,
    stem: 'starting',
    refers: { field: 'from', label: 'Charged by', to: ['alternators'] },
  },
  alternators: {
    title: 'Alternators',
    one: 'Alternator',
    about: 'Engine warm, 1500 rpm. Keep clear of the fan and the belt.',
    fields: alternators,
    many: true,
    stem: 'alternator',
  },
  links: {
    title: 'Links',
    one: 'Link',
    about: 'The connection between the alternator and the house bank.',
    fields: links,
    many: true,
    stem: 'link',
    refers: { field: 'from', label: 'Fed by', to: ['alternators'] },
  },
  chargers: {
    title: 'Mains chargers',
    one: 'Mains charger',
    about: 'Read the label and the low-voltage side. Leave mains wiring to a licensed person.',
    fields: chargers,
    many: true,
    stem: 'charger',
  },
  solar: {
    title: 'Solar',
    one: 'Solar array',
    about: 'Panels and their controller. Cover the panels before you touch a lead.',
    fields: solar,
    many: true,
    stem: 'array',
  },
  sources: {
    title: 'Other sources',
    one: 'Other source',
    about: 'Wind, water or shaft. Tie it down before you reach in.',
    fields: sources,
    many: true,
    stem: 'source',
  },
  generators: {
    title: 'Generators',
    one: 'Generator',
    about: 'A generator for the mains chargers. Exhaust fumes kill: run it outside.',
    fields: generators,
    many: true,
    stem: 'generator',
  },
  inverters: {
    title: 'Inverters',
    one: 'Inverter',
    about: 'The battery current at full power.',
    fields: inverters,
    many: true,
    stem: 'inverter',
  },
  loads: {
    title: 'Loads',
    one: 'Load',
    about: 'The loads, and how long they run.',
    fields: loads,
    many: true,
    stem: 'load',
    columns: [['supply'], ['amps', 'watts'], ['hours'], ['period'], ['duty'], ['essential']],
  },
  conductors: {
    title: 'Cables and fuses',
    one: 'Cable',
    about: 'The cable between a source and the house bank.',
    fields: conductors,
    many: true,
    stem: 'cable',
    columns: [['lengthM'], ['areaMm2'], ['fuseKind'], ['fuseA'], ['connectorA']],
    refers: { field: 'of', label: 'Serves', to: ['chargers', 'links', 'solar', 'sources', 'inverters'] },
  },
  devices: {
    title: 'Gauges and alarms',
    one: 'Device',
    about: 'Devices that act on the battery voltage.',
    fields: devices,
    many: true,
    stem: 'device',
    columns: [['kind'], ['tripV']],
  },
  place: {
    title: 'Place',
    one: 'Place',
    about: 'Where the battery is, and how cold and hot it gets.',
    fields: place,
    many: false,
  },
  candidate: {
    title: 'New battery',
    one: 'New battery',
    about: 'The new lithium battery, from its data sheet.',
    fields: candidate,
    many: false,
  },
  alternatives: {
    title: 'Other candidates',
    one: 'Candidate',
    about: 'Other batteries to compare.',
    fields: candidate,
    many: true,
    stem: 'battery',
    elsewhere: true,
  },
  runs: {
    title: 'Runs of the wiring',
    one: 'Run',
    about: 'Values of a conductor set by hand.',
    fields: runs,
    many: true,
    stem: 'run',
    elsewhere: true,
    keyed: true,
  },
  fittings: {
    title: 'Fuses, switches and bars',
    one: 'Fitting',
    about: 'Values of a fuse, switch, relay, shunt, bar or plug set by hand.',
    fields: fittings,
    many: true,
    stem: 'fitting',
    elsewhere: true,
    keyed: true,
  },
  branches: {
    title: 'Added branches',
    one: 'Branch',
    about: 'Additional circuits that the customer wants.',
    fields: branches,
    many: true,
    stem: 'branch',
    elsewhere: true,
  },
} as const satisfies Record<string, PartKind>

export type PartKindId = keyof typeof partKinds
export type FieldsOf<K extends PartKindId> = (typeof partKinds)[K]['fields']
export type ManyKindId = {
  [K in PartKindId]: (typeof partKinds)[K]['many'] extends true ? K : never
}[PartKindId]
export type OneKindId = Exclude<PartKindId, ManyKindId>

export const partKindIds = Object.keys(partKinds) as PartKindId[]
/** The stations of the walk-round, in walking order. */
export const stationIds = partKindIds.filter((kind) => !(partKinds[kind] as PartKind).elsewhere)
