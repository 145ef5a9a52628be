// Dependencies of the folders: arrows run one way, from the bottom of this list to the top, without circles.

/** Folders of the core with their content, the lowest first. A folder may use those above it in this list, and itself. */
export const layerRoles = {
  collections: 'lookups that fail where nothing is held',
  words: 'glossary',
  units: 'quantities as people write them',
  physics: 'LFP, lead-acid, alternator, conductors, fuses',
  weather: 'sun, weather files',
  rules: 'shop rules with defaults and reasons',
  job: 'the survey: fields, document, changes, migrations',
  shelf: 'kinds of parts',
  labels: 'rating plates: pictures made readable, values found in print',
  system: 'the job as one system: scenes, unknowns, lanes, energy',
  loads: 'energy audit, load detection',
  circuit: 'a general DC circuit solver',
  wiring: 'the wiring of a job: proposal, cases, sizes, lists',
  drawing: 'layout and SVG of a wiring',
  simulation: 'the system over time',
  remedies: 'the catalogue of remedies',
  assessment: 'checks and findings',
  verdict: 'the one verdict of a job',
  compare: 'candidates and systems compared',
  solve: 'the search for answers',
  commissioning: 'order of work, tests with expected readings',
  diagnosis: 'faults, likely causes, next measurement, practice',
  craft: 'craft that come back, customers who are erased',
  quotation: 'lines, money and states of a quotation',
  papers: 'papers as blocks',
  reminders: 'what is due, and when',
  logbook: 'entries, series, trends, tests of batteries',
  sync: 'saving, conflicts, merging',
  formats: 'files and tables',
}
export const layers = Object.keys(layerRoles)

const tests = String.raw`(\.test|\.cases)\.ts$|^core/testing\.ts$`
const anyOf = (names) => `^core/(${names.join('|')})/`

const upward = layers.slice(0, -1).map((layer, i) => ({
  name: `core-${layer}-uses-what-stands-above-it`,
  severity: 'error',
  comment: `core/${layer} is used by the folders after it and knows none of them.`,
  from: { path: anyOf([layer]), pathNot: tests },
  to: { path: anyOf(layers.slice(i + 1)) },
}))

export default {
  forbidden: [
    {
      name: 'no-circle',
      severity: 'error',
      comment: 'Two files that need each other are one thing, or hide a third.',
      from: {},
      to: { circular: true },
    },
    ...upward,
    {
      name: 'core-folder-has-its-place',
      severity: 'error',
      comment: 'A new folder of the core is put in the list of layers.',
      from: { path: '^core/[^/]+/', pathNot: anyOf(layers) },
      to: {},
    },
    {
      name: 'core-knows-none-of-its-users',
      severity: 'error',
      from: { path: '^core/', pathNot: tests },
      to: { path: '^(app|server|scripts|tests|demo)/' },
    },
    { name: 'server-knows-no-page', severity: 'error', from: { path: '^server/' }, to: { path: '^app/' } },
    {
      name: 'app-knows-the-server-by-its-types',
      severity: 'error',
      comment: 'The interface knows the server by its routes and the types of its rows.',
      from: { path: '^app/' },
      to: { path: '^server/', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'resolvable',
      severity: 'error',
      from: { path: '^(core|server|scripts|tests)/' },
      to: { couldNotResolve: true, pathNot: '^pdfmake/interfaces' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: String.raw`^(\.nuxt|\.output|\.data|test-results)/` },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.tools.json' },
    enhancedResolveOptions: {
      extensions: ['.ts', '.mjs', '.js', '.vue', '.json'],
      exportsFields: ['exports'],
      conditionNames: ['import', 'node', 'types', 'default'],
    },
  },
}
