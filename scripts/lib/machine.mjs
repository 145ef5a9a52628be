// Requirements of the two commands: packages, PostgreSQL, Chromium, a build, a free port. Plain Node.js without
// dependencies, because it runs before they are installed.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = fileURLToPath(new URL('../..', import.meta.url))
const namedFolder = process.env.JOVIAL_ANCHOR_DATA
export const isDataFolderNamed = Boolean(namedFolder)
/** Where the data of this machine are: in the project, unless another folder is named. */
export const dataFolder = namedFolder ? resolve(namedFolder) : join(root, '.data')
export const isRoot = process.getuid?.() === 0

/** Ends the program with words for the person who started it. */
export function giveUp(message) {
  console.error(message)
  process.exit(1)
}

/** Runs a command to its end, showing its output; ends the program if it fails. */
export function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options })
  if (error || status !== 0) giveUp(`${command} ${args.join(' ')} failed${error ? `: ${error.message}` : ''}`)
}

const needsNode = 20

/** Whether a process of a number runs. */
export const isAlive = (pid) => {
  try {
    process.kill(pid, 0)
    return true
  } catch {
    return false
  }
}

/** Runs work that two commands must not do at once: the second waits for the first. */
function alone(does, work) {
  const lock = join(ensureFolder(join(root, 'node_modules')), '.busy')
  for (let tries = 0; !isTaken(lock); tries++) {
    if (tries === 0) console.log(`Waiting for another command that ${does} (${lock}) …`)
    spawnSync('sleep', ['0.5'])
  }
  try {
    return work()
  } finally {
    rmSync(lock, { force: true })
  }
}

/** Takes a lock for this process, unless another one that still runs has it. */
function isTaken(lock) {
  try {
    writeFileSync(lock, String(process.pid), { flag: 'wx' })
    return true
  } catch (cause) {
    if (cause.code !== 'EEXIST') throw cause
    if (!isAlive(Number(readFileSync(lock, 'utf8')))) rmSync(lock, { force: true })
    return false
  }
}

/** Installs the npm packages of the lock file, unless they are there already. */
export function installPackages() {
  if (Number(process.versions.node.split('.')[0]) < needsNode)
    giveUp(`Node.js ${needsNode} or newer is required. This is ${process.versions.node}`)
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex')
  const stamp = join(root, 'node_modules', '.installed-lock')
  const areThere = () => existsSync(stamp) && readFileSync(stamp, 'utf8') === lock
  if (areThere()) return
  alone('installs packages', () => {
    if (areThere()) return
    console.log('Installing packages …')
    // Not `npm ci`: it refuses a lock file without the binaries of other platforms, which not every registry
    // carries.
    run('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error'])
    writeFileSync(stamp, lock)
  })
}

/** Installs a Debian package as root; otherwise ends with the command to run. */
function installDebian(name) {
  if (!isRoot)
    giveUp(
      `${name} is not installed. Run this once, then start again:\n  sudo apt-get update && sudo apt-get install -y ${name}`,
    )
  console.log(`Installing Debian's ${name} …`)
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  run('apt-get', ['update', '-qq'], { env })
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', name], {
    env,
    stdio: ['ignore', 'ignore', 'inherit'],
  })
}

const postgresFolder = '/usr/lib/postgresql'
const binOf = (version) => join(postgresFolder, version, 'bin')

/** Versions of Debian's PostgreSQL whose programs are here, newest first. */
export const postgresVersions = () =>
  (existsSync(postgresFolder) ? readdirSync(postgresFolder) : [])
    .filter((version) => existsSync(join(binOf(version), 'initdb')))
    .sort((a, b) => Number(b) - Number(a))

/**
 * Folder of Debian's PostgreSQL programs.
 * @param made the version that made the data there are, which alone can read them; null if there are none
 */
export function postgresPrograms(made = null) {
  if (postgresVersions().length === 0) installDebian('postgresql')
  const there = postgresVersions()
  if (made !== null && !there.includes(made))
    giveUp(
      [
        `PostgreSQL ${made} made this data, but only ${there.join(', ') || 'none'} is installed.`,
        `Install that version as well:`,
        `  sudo apt-get install -y postgresql-${made}`,
        `Then start again. Or move the data to the newest installed PostgreSQL and keep the old data:`,
        `  npm run upgrade`,
        `If that package is no longer available: move the data folder away, start once, and run`,
        `  npm run restore -- FILE`,
      ].join('\n'),
    )
  return there[0]
    ? binOf(made ?? there[0])
    : giveUp(`PostgreSQL was installed, but its programs are not in ${postgresFolder}`)
}

/** A general circuit solver, which the tests compare with. */
export function ensureCircuitSolver() {
  if (!existsSync('/usr/bin/ngspice')) installDebian('ngspice')
}

export const chromiumPath = '/usr/bin/chromium'
export function ensureChromium() {
  if (!existsSync(chromiumPath)) installDebian('chromium')
}

/** The first port from `from` on that is free on loopback. */
export async function freePort(from) {
  for (let port = from; port < from + 200; port++) {
    const free = await new Promise((resolve) => {
      const probe = createServer().once('error', () => resolve(false))
      probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)))
    })
    if (free) return port
  }
  return giveUp(`No free port from ${from} on`)
}

const newest = (path) => {
  const info = statSync(path)
  if (!info.isDirectory()) return info.mtimeMs
  return Math.max(info.mtimeMs, ...readdirSync(path).map((name) => newest(join(path, name))))
}

/** Builds the application when its sources are newer than the build. */
export function buildIfStale() {
  const built = join(root, '.output', 'nitro.json')
  const sources = ['app', 'core', 'server', 'public', 'nuxt.config.ts', 'package-lock.json']
    .map((name) => join(root, name))
    .filter(existsSync)
  const isFresh = () => existsSync(built) && statSync(built).mtimeMs > Math.max(...sources.map(newest))
  if (isFresh()) return
  alone('builds', () => {
    if (isFresh()) return
    console.log('Building …')
    run('npx', ['--no-install', 'nuxt', 'build', '--logLevel', 'silent'], {
      env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1' },
    })
  })
}

export function ensureFolder(path) {
  mkdirSync(path, { recursive: true })
  return path
}
