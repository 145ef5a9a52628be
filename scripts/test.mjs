// npm test: static checks next to units and the build, then server tests on a real PostgreSQL, then browser tests.
// Ends with the totals. By default it leaves out tests that are marked as long: `npm test -- --all` runs all. `npm
// run test:long` runs the long ones, and long random walks.
import { spawn } from 'node:child_process'
import { existsSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { lintChecks, longWalks, shortWalks, typeChecks } from './lib/checks.mjs'
import {
  buildIfStale,
  ensureChromium,
  ensureCircuitSolver,
  ensureFolder,
  giveUp,
  installPackages,
  root,
} from './lib/machine.mjs'
import { startCluster } from './lib/postgres.mjs'

const scopes = {
  short: {
    vitest: ['--tags-filter', '!long'],
    browser: ['--grep-invert', '@long'],
    requests: '500',
    walks: shortWalks,
  },
  '--all': { vitest: [], browser: [], requests: '2000' },
  '--long': { vitest: [], browser: ['--grep', '@long'], walks: longWalks },
}
const asked = process.argv[2] ?? 'short'
const scope = scopes[asked] ?? giveUp(`npm test takes --all or --long, not ${asked}`)

installPackages()
ensureChromium()
ensureCircuitSolver()
const results = ensureFolder(join(root, 'test-results'))
const cluster = await startCluster('test-postgres', { durable: false })
/** Commands that are under way. */
const children = new Set()
process.once('exit', () => {
  for (const child of children) child.kill()
  cluster.stop()
})
for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, () => process.exit(1))

const env = {
  ...process.env,
  TEST_DATABASE_URL: cluster.url,
  NUXT_TELEMETRY_DISABLED: '1',
  NO_COLOR: '1',
  CI: 'true',
  ...scope.walks,
}
const totals = { passed: 0, failed: 0 }
/** The failures, in words: printed again at the end, where they are seen. */
const failures = []

/**
 * Runs a command to its end; its output is printed as one block, because others run next to it.
 * @returns whether it succeeded, and its output
 */
function command(name, args) {
  const begun = Date.now()
  const child = spawn('npx', ['--no-install', ...args], { cwd: root, env, stdio: ['ignore', 'pipe', 'pipe'] })
  children.add(child)
  const printed = []
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (piece) => printed.push(piece))
  return new Promise((resolve) => {
    child.once('close', (status) => {
      children.delete(child)
      console.log(
        `\n— ${name}: ${status === 0 ? 'passed' : 'FAILED'} after ${Math.round((Date.now() - begun) / 1000)} s`,
      )
      const said = Buffer.concat(printed)
      process.stdout.write(said)
      resolve({ ok: status === 0, said: String(said) })
    })
  })
}

/** Commands that pass or fail as one. */
async function step(name, ...commands) {
  for (const args of commands) {
    const { ok, said } = await command(name, args)
    if (ok) continue
    failures.push(`${name}:\n${lastOf(said)}`)
    return void totals.failed++
  }
  totals.passed++
}

/** Of a command that failed this many of its last lines are told again. */
const lastLines = 25
const lastOf = (said) => said.trim().split('\n').slice(-lastLines).join('\n')

/** A test runner: counted from the report it leaves; one that leaves none has failed. */
async function suite(name, report, args, count) {
  rmSync(report, { force: true })
  const { ok, said } = await command(name, args)
  const { passed, failed, names } = existsSync(report)
    ? count(JSON.parse(readFileSync(report, 'utf8')))
    : { passed: 0, failed: 0, names: [] }
  totals.passed += passed
  totals.failed += failed
  failures.push(...names.map((words) => `${name}: ${words}`))
  if (ok || failed > 0) return
  failures.push(`${name}:\n${lastOf(said)}`)
  totals.failed++
}

const vitest = (project) => {
  const report = join(results, `${project}.json`)
  const args = [
    'vitest',
    'run',
    '--project',
    project,
    '--reporter=dot',
    '--reporter=json',
    `--outputFile.json=${report}`,
    ...scope.vitest,
  ]
  return suite(project, report, args, (r) => ({
    passed: r.numPassedTests,
    failed: r.numFailedTests,
    names: r.testResults.flatMap(({ assertionResults }) =>
      assertionResults
        .filter(({ status }) => status === 'failed')
        .map(({ fullName, failureMessages }) => `${fullName}\n${failureMessages.join('\n')}`),
    ),
  }))
}
const browser = () =>
  suite('browser', join(results, 'browser.json'), ['playwright', 'test', ...scope.browser], (r) => ({
    passed: r.stats.expected,
    failed: r.stats.unexpected + r.stats.flaky + r.stats.skipped,
    names: r.suites.flatMap(failedSpecs),
  }))

/** Titles of the browser tests that failed, from a suite of the report down. */
const failedSpecs = ({ specs = [], suites = [] }) => [
  ...specs.filter(({ ok }) => !ok).map(({ title, file, line }) => `${file}:${line} ${title}`),
  ...suites.flatMap(failedSpecs),
]

async function checkSources() {
  for (const { name, commands } of [...lintChecks, ...typeChecks]) await step(name, ...commands)
}

/** A short `npm run fuzz` follows the server's tests: both use the same cluster. */
async function askTheServer() {
  await vitest('server')
  await step('hostile requests', ['tsx', 'scripts/fuzz.ts', scope.requests, '1'])
}
/** A short `npm run soak`: it mostly waits, and has a database of its own. */
const useUnderKills = () => step('use under kills', ['tsx', 'scripts/soak.ts', '25', '1'])

// The build first: it and the types both write Nuxt's generated files. Browser tests last and alone: they need the
// machine to themselves.
buildIfStale()
if (asked === '--long') {
  await vitest('units')
  await vitest('server')
  await useUnderKills()
} else {
  await Promise.all([checkSources(), vitest('page').then(() => vitest('units'))])
  await Promise.all([askTheServer(), asked === '--all' && useUnderKills()])
}
await browser()

if (failures.length > 0) console.log(`\nWhat failed:\n\n${failures.join('\n\n')}`)
console.log(`\n${totals.passed} passed, ${totals.failed} failed`)
process.exit(totals.failed === 0 ? 0 : 1)
