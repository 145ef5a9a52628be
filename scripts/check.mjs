// npm run lint | typecheck | test:unit: one part of npm test, for daily work. Installs packages where
// they are missing. More words narrow a test run: npm run test:unit -- core/physics
import { spawnSync } from 'node:child_process'
import { lintChecks, typeChecks } from './lib/checks.mjs'
import { ensureCircuitSolver, giveUp, installPackages, root } from './lib/machine.mjs'

const [part, ...more] = process.argv.slice(2)
const units = [
  { name: 'units', commands: [['vitest', 'run', '--project', 'units', '--project', 'page', ...more]] },
]
const parts = {
  lint: { checks: lintChecks },
  typecheck: { checks: typeChecks },
  'test:unit': { checks: units },
}
const chosen = parts[part] ?? giveUp(`Choose one of ${Object.keys(parts).join(', ')}`)

installPackages()
if (part.startsWith('test:')) ensureCircuitSolver()
const env = { ...process.env, NUXT_TELEMETRY_DISABLED: '1' }
const failed = []
for (const { name, commands } of chosen.checks) {
  for (const args of commands) {
    const { status } = spawnSync('npx', ['--no-install', ...args], { cwd: root, env, stdio: 'inherit' })
    if (status === 0) continue
    failed.push(name)
    break
  }
}
if (failed.length > 0) giveUp(`Failed: ${failed.join(', ')}`)
