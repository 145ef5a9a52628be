// A private PostgreSQL cluster on loopback, never the machine's own.
import { spawnSync } from 'node:child_process'
import { createHash, randomBytes } from 'node:crypto'
import { chmodSync, existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { dataFolder, ensureFolder, freePort, giveUp, isRoot, postgresPrograms, root } from './machine.mjs'

/** PostgreSQL refuses to run as root: as root its own user runs it. */
const asPostgres = (command, args, options = {}) =>
  isRoot
    ? spawnSync('runuser', ['-u', 'postgres', '--', command, ...args], {
        cwd: '/',
        encoding: 'utf8',
        ...options,
      })
    : spawnSync(command, args, { encoding: 'utf8', ...options })

/** Where the cluster lives: in the project, unless the postgres user cannot reach it there. */
function clusterHome(name) {
  ensureFolder(dataFolder)
  if (isRoot && asPostgres('test', ['-x', dataFolder]).status !== 0) {
    return ensureFolder(
      join('/var/lib/jovial-anchor', createHash('sha256').update(root).digest('hex').slice(0, 12), name),
    )
  }
  return ensureFolder(join(dataFolder, name))
}

function mustWork(result, what) {
  if (result.status !== 0)
    giveUp(`${what} failed:\n${result.stderr || result.stdout || result.error?.message}`)
}

const isAlive = (pid) => {
  try {
    process.kill(pid, 0)
    return true
  } catch {
    return false
  }
}

/**
 * Starts the cluster of a name, making it first where there is none. Gives the address of its
 * `postgres` database and a `stop`, which ends it with its last user: several starts may share it.
 * @param durable false for tests: faster, and nothing is lost that matters
 */
export async function startCluster(name, { durable }) {
  const bin = postgresPrograms()
  const home = clusterHome(name)
  const data = join(home, 'cluster')
  const secret = join(home, 'password')
  const users = ensureFolder(join(home, 'users'))
  if (!existsSync(data)) {
    mkdirSync(data)
    writeFileSync(secret, randomBytes(18).toString('hex'))
    if (isRoot) mustWork(spawnSync('chown', ['-R', 'postgres', home], { encoding: 'utf8' }), 'chown')
    chmodSync(secret, 0o600)
    const made = asPostgres(join(bin, 'initdb'), [
      '-D',
      data,
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
      ...(durable ? [] : ['--no-sync']),
    ])
    if (made.status !== 0) rmSync(data, { recursive: true })
    mustWork(made, 'initdb')
  }
  const url = (port) => `postgres://jovial:${readFileSync(secret, 'utf8')}@127.0.0.1:${port}/postgres`
  const mine = join(users, String(process.pid))
  writeFileSync(mine, '')
  if (asPostgres(join(bin, 'pg_ctl'), ['-D', data, 'status']).status === 0) {
    return { url: url(readFileSync(join(data, 'postmaster.pid'), 'utf8').split('\n')[3]), stop }
  }
  const port = await freePort(54_330)
  const settings = [
    'listen_addresses=127.0.0.1',
    'unix_socket_directories=',
    `port=${port}`,
    ...(durable ? [] : ['fsync=off', 'synchronous_commit=off', 'full_page_writes=off']),
  ]
  mustWork(
    asPostgres(
      join(bin, 'pg_ctl'),
      [
        '-D',
        data,
        '-w',
        '-l',
        join(home, 'log'),
        '-o',
        settings.map((s) => `-c ${s.endsWith('=') ? `${s}''` : s}`).join(' '),
        'start',
      ],
      { stdio: ['ignore', 'ignore', 'pipe'] },
    ),
    `Starting PostgreSQL (see ${join(home, 'log')})`,
  )
  return { url: url(port), stop }

  function stop() {
    rmSync(mine, { force: true })
    if (readdirSync(users).some((pid) => isAlive(Number(pid)))) return
    asPostgres(join(bin, 'pg_ctl'), ['-D', data, '-m', 'fast', '-w', 'stop'], { stdio: 'ignore' })
  }
}
