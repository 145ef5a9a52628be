// The static checks, each a list of commands. `npm test` and `npm run lint` run the same ones.
import { join } from 'node:path'
import { ensureFolder, root } from './machine.mjs'

/** Files that passed are checked again only where their text or the tool's settings change. */
const cachedByContent = (tool) => [
  '--cache',
  '--cache-strategy',
  'content',
  '--cache-location',
  join(ensureFolder(join(root, 'node_modules/.cache')), `${tool}-sound`),
]
const typesOf = (project) => [
  'tsc',
  '-p',
  `tsconfig.${project}.json`,
  '--incremental',
  '--tsBuildInfoFile',
  join(root, `node_modules/.cache/${project}.tsbuildinfo`),
]
const checkedFolders = ['app', 'core', 'server', 'scripts', 'tests']

/** Writes Nuxt's generated types of files and routes. */
export const prepareNuxt = ['nuxt', 'prepare', '--logLevel', 'silent']

/** Assertions that a value is not null, each a warning. This number only falls. */
const mostWarnings = 337

export const lintChecks = [
  {
    name: 'format',
    commands: [['prettier', '--check', '--log-level', 'warn', ...cachedByContent('prettier'), '.']],
  },
  {
    name: 'lint',
    commands: [
      prepareNuxt,
      ['eslint', ...cachedByContent('eslint'), '--quiet', '--max-warnings', String(mostWarnings), '.'],
    ],
  },
  {
    name: 'spelling',
    commands: [['cspell', 'lint', '--no-progress', '--no-summary', ...cachedByContent('cspell')]],
  },
  {
    name: 'layers',
    commands: [
      ['depcruise', ...checkedFolders, '--config', '.dependency-cruiser.mjs', '--output-type', 'err'],
    ],
  },
]

export const typeChecks = [
  { name: 'types of the core', commands: [typesOf('core')] },
  { name: 'types', commands: [prepareNuxt, ['vue-tsc', '-b', '--noEmit'], typesOf('tools')] },
]

/** Sizes of the random walks in `npm test`. `.ci/run` takes those written in the tests. */
export const shortWalks = {
  RANDOM_JOBS: '50',
  RANDOM_EDITS: '150',
  RANDOM_SURFACES: '3',
  RANDOM_NUMBERS: '3',
  RUN_JOBS: '5',
  REMEDY_JOBS: '8',
  RANDOM_DELETIONS: '3',
  RANDOM_NETWORKS: '6',
  RANDOM_SYSTEMS: '16',
  SYNC_RUNS: '200',
}
/** Sizes of the random walks in `npm run test:long`. */
export const longWalks = {
  RANDOM_JOBS: '2000',
  RANDOM_SURVEYS: '200',
  RANDOM_EDITS: '5000',
  RANDOM_SURFACES: '500',
  RANDOM_NUMBERS: '100',
  RUN_JOBS: '2000',
  REFERENCE_JOBS: '6',
  REMEDY_JOBS: '2000',
  RANDOM_DELETIONS: '500',
  RANDOM_NETWORKS: '200',
  RANDOM_SYSTEMS: '400',
  SYNC_RUNS: '10000',
}
