import type { Fields } from './field'
import { alternators } from '#core/job/parts/alternators'
import { candidate, houseBank, startingBattery } from '#core/job/parts/batteries'
import { branches, fittings, runs } from '#core/job/parts/network'
import { place, use } from '#core/job/parts/use'
import { chargers, generators } from '#core/job/parts/chargers'
import { links } from '#core/job/parts/links'
import { solar, sources } from '#core/job/parts/sources'
import { conductors, devices, inverters, loads } from '#core/job/parts/wiring'

export * from './field'

/** A kind of part: a station of the walk-round, its fields, and what it refers to. */
export interface PartKind {
  readonly title: string
  readonly one: string
  /** One line for the installer who stands before it. */
  readonly about: string
  readonly fields: Fields
  /** A collection of parts by id; otherwise exactly one. */
  readonly many: boolean
  /** What ids of its parts begin with: `charger` for `charger-1`. */
  readonly stem?: string
  /** Name of the property that points at another part, and where to. */
  readonly refers?: { readonly field: 'from' | 'of'; readonly label: string; readonly to: readonly string[] }
  /** Surveyed as a table with these columns: each of one field, or of several of which one is asked. */
  readonly columns?: readonly (readonly string[])[]
  /** Not a station of the walk-round: it has a view of its own. */
  readonly elsewhere?: true
  /** Its parts are named by what they are about, as `main-fuse`, and not numbered. */
  readonly keyed?: true
}

/** Every part of the survey, in walking order. */
export const partKinds = {
  use: {
    title: 'Use',
    one: 'Use',
    about: 'What runs, for how long, and how it is wired together.',
    fields: use,
    many: false,
  },
  houseBank: {
    title: 'House bank',
    one: 'House bank',
    about: 'The lead-acid bank that is there now.',
    fields: houseBank,
    many: false,
  },
  startingBatteries: {
    title: 'Starting batteries',
    one: 'Starting battery',
    about: 'What turns each engine.',
    fields: startingBattery,
    many: true,
    stem: 'starting',
    refers: { field: 'from', label: 'Charged by', to: ['alternators'] },
  },
  alternators: {
    title: 'Alternators',
    one: 'Alternator',
    about: 'Engine warm, 1500 rpm, mind the fan and the belt.',
    fields: alternators,
    many: true,
    stem: 'alternator',
  },
  links: {
    title: 'Links',
    one: 'Link',
    about: 'What joins the alternator to the house bank.',
    fields: links,
    many: true,
    stem: 'link',
    refers: { field: 'from', label: 'Fed by', to: ['alternators'] },
  },
  chargers: {
    title: 'Mains chargers',
    one: 'Mains charger',
    about: 'Mains wiring stays with licensed hands; read the label and the low-voltage side.',
    fields: chargers,
    many: true,
    stem: 'charger',
  },
  solar: {
    title: 'Solar',
    one: 'Solar array',
    about: 'Panels and their controller. Cover the panels before touching a lead.',
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
    about: 'A set that runs the mains chargers. Fumes kill: run it outside.',
    fields: generators,
    many: true,
    stem: 'generator',
  },
  inverters: {
    title: 'Inverters',
    one: 'Inverter',
    about: 'What the battery must give at full power.',
    fields: inverters,
    many: true,
    stem: 'inverter',
  },
  loads: {
    title: 'Loads',
    one: 'Load',
    about: 'What the customer runs, and for how long.',
    fields: loads,
    many: true,
    stem: 'load',
    columns: [['supply'], ['amps', 'watts'], ['hours'], ['period'], ['duty'], ['essential']],
  },
  conductors: {
    title: 'Cables and fuses',
    one: 'Cable',
    about: 'The run between a source and the house bank.',
    fields: conductors,
    many: true,
    stem: 'cable',
    columns: [['lengthM'], ['areaMm2'], ['fuseKind'], ['fuseA'], ['connectorA']],
    refers: { field: 'of', label: 'Serves', to: ['chargers', 'links', 'solar', 'sources', 'inverters'] },
  },
  devices: {
    title: 'Gauges and alarms',
    one: 'Device',
    about: 'Anything that acts on battery voltage.',
    fields: devices,
    many: true,
    stem: 'device',
    columns: [['kind'], ['tripV']],
  },
  place: {
    title: 'Place',
    one: 'Place',
    about: 'Where the battery stands, and how cold and hot it gets.',
    fields: place,
    many: false,
  },
  candidate: {
    title: 'New battery',
    one: 'New battery',
    about: 'The lithium battery in question, from its data sheet.',
    fields: candidate,
    many: false,
  },
  alternatives: {
    title: 'Other candidates',
    one: 'Candidate',
    about: 'Batteries to set beside the one in question.',
    fields: candidate,
    many: true,
    stem: 'battery',
    elsewhere: true,
  },
  runs: {
    title: 'Runs of the wiring',
    one: 'Run',
    about: 'What is set by hand of a conductor.',
    fields: runs,
    many: true,
    stem: 'run',
    elsewhere: true,
    keyed: true,
  },
  fittings: {
    title: 'Fuses, switches and bars',
    one: 'Fitting',
    about: 'What is set by hand of a fuse, switch, relay, shunt, bar or plug.',
    fields: fittings,
    many: true,
    stem: 'fitting',
    elsewhere: true,
    keyed: true,
  },
  branches: {
    title: 'Added branches',
    one: 'Branch',
    about: 'What the customer wants on the bar besides.',
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
