// A private PostgreSQL cluster on loopback, never the machine's own.
import { spawnSync } from 'node:child_process'
import { createHash, randomBytes } from 'node:crypto'
import {
  chmodSync,
  existsSync,
  linkSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import {
  dataFolder,
  ensureFolder,
  freePort,
  giveUp,
  isAlive,
  isDataFolderNamed,
  isRoot,
  postgresPrograms,
  root,
} from './machine.mjs'
import { isDiskFull } from './plain-errors.mjs'

/** PostgreSQL refuses to run as root: as root its own user runs it. */
const asPostgres = (command, args, options = {}) =>
  isRoot
    ? spawnSync('runuser', ['-u', 'postgres', '--', command, ...args], {
        cwd: '/',
        encoding: 'utf8',
        ...options,
      })
    : spawnSync(command, args, { encoding: 'utf8', ...options })

/**
 * Where the cluster lives: in the project, unless the postgres user cannot reach it there. A folder that was named
 * is never exchanged for another one.
 */
function clusterHome(name) {
  ensureFolder(dataFolder)
  if (isRoot && asPostgres('test', ['-x', dataFolder]).status !== 0) {
    if (isDataFolderNamed)
      giveUp(
        `The user postgres cannot reach ${dataFolder} (JOVIAL_ANCHOR_DATA). Choose a folder that it can reach.`,
      )
    return ensureFolder(
      join('/var/lib/jovial-anchor', createHash('sha256').update(root).digest('hex').slice(0, 12), name),
    )
  }
  return ensureFolder(join(dataFolder, name))
}

const saidBy = ({ stderr, stdout, error }) => stderr || stdout || error?.message

function mustWork(result, what) {
  if (result.status === 0) return
  const said = saidBy(result)
  if (/No space left on device/.test(said))
    giveUp(`${what} failed: the disk is full. Free some space, then start again.`)
  giveUp(`${what} failed:\n${said}`)
}

const makingPrefix = 'making-'

/** Writes a secret to a file that is not there yet; where two do at once, the first one's stands. */
function writeSecret(file) {
  if (existsSync(file)) return
  const whole = `${file}-${process.pid}`
  writeFileSync(whole, randomBytes(18).toString('hex'), { mode: 0o600 })
  try {
    linkSync(whole, file)
  } catch (cause) {
    if (cause.code !== 'EEXIST') throw cause
  } finally {
    rmSync(whole)
  }
}

/**
 * Makes the data folder of a cluster, in a folder next to that takes its place once it is whole: whatever ends this
 * in the middle leaves nothing half made.
 */
function makeData(bin, home, data, secret, durable) {
  // Leftovers of an interrupted start; not those of a start in progress.
  for (const name of readdirSync(home))
    if (name.startsWith(makingPrefix) && !isAlive(Number(name.slice(makingPrefix.length))))
      rmSync(join(home, name), { recursive: true, force: true })
  const making = join(home, `${makingPrefix}${process.pid}`)
  mkdirSync(making)
  writeSecret(secret)
  if (isRoot) mustWork(spawnSync('chown', ['-R', 'postgres', home], { encoding: 'utf8' }), 'chown')
  chmodSync(secret, 0o600)
  const made = asPostgres(join(bin, 'initdb'), [
    '-D',
    making,
    '-U',
    'jovial',
    '-A',
    'scram-sha-256',
    '--pwfile',
    secret,
    '-E',
    'UTF8',
    '--locale',
    'C.UTF-8',
    '--data-checksums',
    ...(durable ? [] : ['--no-sync']),
  ])
  if (made.status !== 0) rmSync(making, { recursive: true })
  mustWork(made, 'initdb')
  try {
    renameSync(making, data)
  } catch (cause) {
    // Another start was quicker: its data are as good.
    rmSync(making, { recursive: true })
    if (!existsSync(data)) throw cause
  }
}

/** The folder of the data in the home of a cluster. */
const theData = 'cluster'

/** The version of PostgreSQL that made the data of a folder; null if there are none. */
function versionOf(data) {
  const made = join(data, 'PG_VERSION')
  return existsSync(made) ? readFileSync(made, 'utf8').trim() : null
}

/** The same of the cluster of a name. */
export const versionOfCluster = (name) => versionOf(join(clusterHome(name), theData))

/**
 * Puts the data of another folder in the place of those of a cluster. Neither may be in use.
 * @returns the folder in which the old ones are kept
 */
export function replaceData(name, folder) {
  const home = clusterHome(name)
  const stamp = new Date().toISOString().replace(/[:.]/g, '-')
  const kept = join(home, `cluster-of-${versionOf(join(home, theData))}-until-${stamp}`)
  renameSync(join(home, theData), kept)
  renameSync(join(home, folder), join(home, theData))
  return kept
}

/** Removes the leftovers of an interrupted upgrade. */
export const dropData = (name, folder) =>
  rmSync(join(clusterHome(name), folder), { recursive: true, force: true })

/** The port in the lock file of a data folder; null if there is none. */
function portInLock(data) {
  try {
    const port = Number(readFileSync(join(data, 'postmaster.pid'), 'utf8').split('\n')[3])
    return Number.isInteger(port) && port > 0 ? port : null
  } catch {
    return null
  }
}

/** Whether the server of this very data folder answers at a port: it is asked, whatever a number in a file says. */
function answers(bin, data, secret, port) {
  const asked = spawnSync(
    join(bin, 'psql'),
    ['-h', '127.0.0.1', '-p', String(port), '-U', 'jovial', '-d', 'postgres', '-Atc', 'show data_directory'],
    {
      encoding: 'utf8',
      timeout: 5000,
      env: { ...process.env, PGPASSWORD: readFileSync(secret, 'utf8'), PGCONNECT_TIMEOUT: '3' },
    },
  )
  return asked.status === 0 && asked.stdout.trim() === data
}

/** Whether the process that a lock file names is a database: else a machine that went down has left it. */
function isRunning(data) {
  try {
    const pid = Number(readFileSync(join(data, 'postmaster.pid'), 'utf8').split('\n')[0])
    return /postgres/.test(readFileSync(`/proc/${pid}/cmdline`, 'utf8'))
  } catch {
    return false
  }
}

/** Takes away a lock file that nobody holds any more. */
function dropStaleLock(data) {
  if (!isRunning(data)) rmSync(join(data, 'postmaster.pid'), { force: true })
}

/** How often a start is tried. */
const mostStarts = 3
/** How long a start waits for a killed database to be gone, ms. */
const mostLetGoMs = 20_000

/** Looks after a start that failed, 0.3 s apart. */
const mostLooks = 10

/** Whether a start failed because processes of a database that was killed hold its memory a moment longer. */
const isStillHeld = (log) =>
  existsSync(log) && readFileSync(log, 'utf8').includes('pre-existing shared memory block')

/** The last lines that PostgreSQL wrote when it did not start: before its own log began, and in that. */
function lastLinesOf(startLog, data) {
  const folder = join(data, 'log')
  const newest = existsSync(folder)
    ? readdirSync(folder)
        .map((name) => join(folder, name))
        .sort((a, b) => statSync(a).mtimeMs - statSync(b).mtimeMs)
        .at(-1)
    : undefined
  return [startLog, newest]
    .filter((file) => file !== undefined && existsSync(file))
    .map((file) => `${file}:\n${readFileSync(file, 'utf8').trim().split('\n').slice(-8).join('\n')}`)
    .join('\n')
}

/**
 * Starts the cluster of a name, and creates it if there is none. Returns the address of its `postgres` database, a
 * `stop`, which ends it with its last user (several starts may share it), a function that restarts it, and the
 * address for the application's role.
 * @param durable false for tests: faster, and no important data is lost
 * @param folder of the data in the home of the cluster
 * @param version of PostgreSQL that creates missing data: the newest installed, unless named
 */
export async function startCluster(name, { durable, folder = theData, version = null }) {
  const home = clusterHome(name)
  const data = join(home, folder)
  const secret = join(home, 'password')
  const applicationSecret = join(home, 'application-password')
  const users = ensureFolder(join(home, 'users'))
  const bin = postgresPrograms(versionOf(data) ?? version)
  if (!existsSync(data)) makeData(bin, home, data, secret, durable)
  writeSecret(applicationSecret)
  const mine = join(users, String(process.pid))
  writeFileSync(mine, '')
  let port = await bringUp(54_330).catch((cause) => giveUp(cause.message))
  const addressFor = (role, password) =>
    `postgres://${role}:${readFileSync(password, 'utf8')}@127.0.0.1:${port}/postgres`
  return {
    get url() {
      return addressFor('jovial', secret)
    },
    get applicationUrl() {
      return addressFor('jovial_anchor_application', applicationSecret)
    },
    bin,
    stop,
    isUp: () => answers(bin, data, secret, port),
    /**
     * Starts it again, at another port where a program has taken its own meanwhile: the addresses are others then.
     */
    bringBack: async () => {
      port = await bringUp(port)
    },
  }

  /**
   * The port at which it answers, started where it does not: again, where another start took port or data just
   * before, or it was killed as it came up.
   * @param wanted port that it takes if that is free
   * @throws where it cannot be started
   */
  async function bringUp(wanted) {
    for (let tries = 1; ; tries++) {
      const standing = portInLock(data)
      if (standing !== null && answers(bin, data, secret, standing)) return standing
      const free = await freePort(wanted)
      try {
        return start(free)
      } catch (cause) {
        if (tries === mostStarts) throw cause
      }
    }
  }

  /**
   * The port at which it answers after all, null if it does not: a start that was killed may have left a program
   * that starts it, at a port of its own. Such a one is waited for as long as it lives.
   */
  function portThatComesUp(at) {
    const last = Date.now() + mostLetGoMs
    for (let looks = 1; looks <= mostLooks || (isRunning(data) && Date.now() < last); looks++) {
      const standing = portInLock(data) ?? at
      if (answers(bin, data, secret, standing)) return standing
      spawnSync('sleep', ['0.3'])
    }
    return null
  }

  /**
   * @returns the port at which it answers
   * @throws where it cannot be started
   */
  function start(at) {
    dropStaleLock(data)
    // Only messages before its own log begins go there.
    rmSync(join(home, 'start.log'), { force: true })
    const settings = [
      'listen_addresses=127.0.0.1',
      'unix_socket_directories=',
      `port=${at}`,
      // Its log is a file a weekday, begun again each week.
      'logging_collector=on',
      'log_directory=log',
      'log_filename=%a.log',
      'log_truncate_on_rotation=on',
      'log_rotation_age=1d',
      'log_rotation_size=0',
      ...(durable ? [] : ['fsync=off', 'synchronous_commit=off', 'full_page_writes=off']),
    ]
    const options = settings.map((s) => `-c ${s.endsWith('=') ? `${s}''` : s}`).join(' ')
    const log = join(home, 'start.log')
    const once = () =>
      asPostgres(join(bin, 'pg_ctl'), ['-D', data, '-w', '-l', log, '-o', options, 'start'], {
        stdio: ['ignore', 'ignore', 'pipe'],
      })
    const last = Date.now() + mostLetGoMs
    let started = once()
    while (started.status !== 0 && isStillHeld(log) && Date.now() < last) {
      spawnSync('sleep', ['0.3'])
      rmSync(log, { force: true })
      started = once()
    }
    if (started.status === 0) return at
    const standing = portThatComesUp(at)
    if (standing === null)
      throw new Error(
        isDiskFull(data)
          ? `The disk with ${data} is full, so PostgreSQL cannot start. Free some space.`
          : `Starting PostgreSQL failed:\n${lastLinesOf(log, data) || saidBy(started)}`,
      )
    return standing
  }

  /** @returns whether nobody uses it any more, and it is down */
  function stop() {
    rmSync(mine, { force: true })
    if (readdirSync(users).some((pid) => isAlive(Number(pid)))) return false
    if (answers(bin, data, secret, port))
      asPostgres(join(bin, 'pg_ctl'), ['-D', data, '-m', 'fast', '-w', 'stop'], { stdio: 'ignore' })
    return true
  }
}
