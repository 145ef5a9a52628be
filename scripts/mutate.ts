// npm run mutate [-- COUNT [SEED]]: changes one operator or number of the core at a time, in a copy of the sources,
// and runs quick tests, those of its subject, then those of the checks. Prints each change that no test notices, and
// the share that was noticed. Takes about a minute for each change that is not.
import { spawnSync } from 'node:child_process'
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { chanceOf } from './lib/hostile'
import { mutantsOf, type Mutant } from './lib/mutants'

const [count = 100, seed = 1] = process.argv.slice(2).map(Number)
const root = fileURLToPath(new URL('..', import.meta.url))

/** The folders that are changed, each with the tests of its subject. */
const subjects: Readonly<Record<string, readonly string[]>> = {
  'core/physics': ['core/physics', 'core/wiring'],
  'core/circuit': ['core/wiring', 'scripts/netlist.test.ts'],
  'core/wiring': ['core/wiring'],
  'core/verdict': ['core/verdict'],
  'core/assessment/checks/wiring': ['core/assessment/checks', 'core/assessment/wired.test.ts'],
}
/** Run first: they look at much in a few seconds. */
const quickTests = ['core/assessment/wired-schedule', 'core/physics/reference']
/** Run for a change that no test before noticed. */
const furtherTests = [
  'core/assessment/checks',
  'core/assessment/wired.test.ts',
  'core/assessment/wired-by-hand.test.ts',
  'core/simulation/simulation',
  'core/solve/wiring',
]
/** A change may make a loop endless. */
const hangsMs = 600_000

const sourcesIn = (folder: string): string[] =>
  readdirSync(join(root, folder), { withFileTypes: true, recursive: true })
    .filter(
      (entry) => entry.isFile() && entry.name.endsWith('.ts') && !/\.(test|cases)\.ts$/.test(entry.name),
    )
    .map((entry) => join(entry.parentPath, entry.name).slice(root.length))

const all = Object.entries(subjects).flatMap(([folder, tests]) =>
  sourcesIn(folder).flatMap((file) =>
    mutantsOf(file, readFileSync(join(root, file), 'utf8')).map((mutant) => ({ mutant, tests })),
  ),
)
const chance = chanceOf(seed)
const chosen = Array.from({ length: Math.min(count, all.length) }, () =>
  all.splice(Math.floor(chance() * all.length), 1),
).flat()

const copy = mkdtempSync(join(tmpdir(), 'jovial-anchor-mutants-'))
process.once('exit', () => {
  rmSync(copy, { recursive: true, force: true })
})
for (const name of ['app', 'core', 'demo', 'scripts', 'server', 'package.json', 'vitest.config.ts'])
  cpSync(join(root, name), join(copy, name), { recursive: true })
symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'))

const passes = (tests: readonly string[]): boolean =>
  spawnSync(
    'npx',
    ['--no-install', 'vitest', 'run', '--project', 'units', '--bail', '1', '--maxWorkers', '1', ...tests],
    { cwd: copy, stdio: 'ignore', timeout: hangsMs },
  ).status === 0

function isNoticed({ file, source }: Mutant, tests: readonly string[]): boolean {
  const path = join(copy, file)
  const before = readFileSync(path, 'utf8')
  writeFileSync(path, source)
  try {
    return !passes(quickTests) || !passes(tests) || !passes(furtherTests)
  } finally {
    writeFileSync(path, before)
  }
}

if (!passes(['core/physics'])) {
  console.error('The tests fail before anything is changed.')
  process.exit(1)
}
let noticed = 0
for (const [i, { mutant, tests }] of chosen.entries()) {
  const { file, line, before, after } = mutant
  if (isNoticed(mutant, tests)) noticed++
  else console.log(`${file}:${line} not noticed: ${before.slice(0, 60)} → ${after.slice(0, 60)}`)
  console.log(`${noticed} of ${i + 1} noticed`)
}
