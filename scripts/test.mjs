// npm test: lint, types, units, server tests on a real PostgreSQL, browser tests. Ends with the totals.
import { spawnSync } from 'node:child_process'
import { existsSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { buildIfStale, ensureChromium, ensureFolder, installPackages, root } from './lib/machine.mjs'
import { startCluster } from './lib/postgres.mjs'

installPackages()
ensureChromium()
const results = ensureFolder(join(root, 'test-results'))
const cluster = await startCluster('test-postgres', { durable: false })
process.once('exit', () => cluster.stop())
for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, () => process.exit(1))

const env = { ...process.env, TEST_DATABASE_URL: cluster.url, NUXT_TELEMETRY_DISABLED: '1', CI: 'true' }
const npx = (args) => spawnSync('npx', ['--no-install', ...args], { cwd: root, stdio: 'inherit', env }).status === 0
const totals = { passed: 0, failed: 0 }

/** One step that passes or fails as a whole. */
function step(name, works) {
  console.log(`\n— ${name}`)
  totals[works() ? 'passed' : 'failed']++
}

/** A test runner: counted from the report it leaves; one that leaves none has failed. */
function suite(name, report, args, count) {
  console.log(`\n— ${name}`)
  rmSync(report, { force: true })
  const ok = npx(args)
  if (!existsSync(report)) return void totals.failed++
  const { passed, failed } = count(JSON.parse(readFileSync(report, 'utf8')))
  totals.passed += passed
  totals.failed += failed
  if (!ok && failed === 0) totals.failed++
}

const vitest = (project) => {
  const report = join(results, `${project}.json`)
  suite(project, report, ['vitest', 'run', '--project', project, '--reporter=dot', '--reporter=json', `--outputFile.json=${report}`], (r) => ({ passed: r.numPassedTests, failed: r.numFailedTests }))
}

step('lint', () => npx(['eslint', '.']))
step('layers', () => npx(['depcruise', 'app', 'core', 'server', 'scripts', 'tests', '--config', '.dependency-cruiser.mjs', '--output-type', 'err']))
step('types of the core', () => npx(['tsc', '-p', 'tsconfig.core.json']))
step('types', () => npx(['nuxt', 'prepare', '--logLevel', 'silent']) && npx(['vue-tsc', '-b', '--noEmit']) && npx(['tsc', '-p', 'tsconfig.tools.json']))
vitest('units')
buildIfStale()
vitest('server')
suite('browser', join(results, 'browser.json'), ['playwright', 'test'], (r) => ({ passed: r.stats.expected + r.stats.flaky, failed: r.stats.unexpected }))

console.log(`\n${totals.passed} passed, ${totals.failed} failed`)
process.exit(totals.failed === 0 ? 0 : 1)
