// Backups of a database: the file that pg_dump writes, with a digest at its end, so that a damaged one is refused
// before anything is touched. Files of any size are read piece by piece. A restore loads a database next to, which
// takes the place of the old one once it is whole and of this version: everything or nothing.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import {
  appendFileSync,
  closeSync,
  existsSync,
  fstatSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readdirSync,
  readSync,
  renameSync,
  rmSync,
} from 'node:fs'
import { join } from 'node:path'

const mark = '\njovial-anchor backup, sha256 '
const trailerBytes = mark.length + 64 + 1
const pieceBytes = 1024 * 1024

/** The address of a database without its password, and the environment that holds it: arguments are seen by all. */
function withoutPassword(url) {
  const address = new URL(url)
  const password = decodeURIComponent(address.password)
  address.password = ''
  return { url: address.href, env: { ...process.env, ...(password && { PGPASSWORD: password }) } }
}

function program(command, args, what, env = process.env) {
  const result = spawnSync(command, args, { stdio: ['ignore', 'ignore', 'pipe'], env })
  if (result.error || result.status !== 0)
    throw new Error(`${what} failed: ${result.error?.message ?? String(result.stderr).trim()}`)
}

/** The SHA-256 of the first bytes of a file. */
function digestOf(handle, bytes) {
  const hash = createHash('sha256')
  const piece = Buffer.alloc(pieceBytes)
  for (let at = 0; at < bytes;) {
    const read = readSync(handle, piece, 0, Math.min(pieceBytes, bytes - at), at)
    if (read === 0) throw new Error('The file ends early')
    hash.update(piece.subarray(0, read))
    at += read
  }
  return hash.digest('hex')
}

/** Does something with a file that is open for reading. */
function withFile(file, work) {
  const handle = openSync(file, 'r')
  try {
    return work(handle)
  } finally {
    closeSync(handle)
  }
}

/** Makes a file, or empties it, so that only its owner reads it. */
function makePrivate(file) {
  rmSync(file, { force: true })
  closeSync(openSync(file, 'w', 0o600))
}

/**
 * Writes a backup of the database of an address to a file. The file is whole and readable to its last byte, or it is
 * not there.
 * @returns its size in bytes
 */
export function backUp(bin, url, file) {
  const part = `${file}.part`
  const { url: address, env } = withoutPassword(url)
  makePrivate(part)
  try {
    const dump = ['--format=custom', '--no-owner', '--file', part, '--dbname', address]
    program(join(bin, 'pg_dump'), dump, 'The backup', env)
    const bytes = withFile(part, (handle) => fstatSync(handle).size)
    const digest = withFile(part, (handle) => digestOf(handle, bytes))
    appendFileSync(part, `${mark}${digest}\n`)
    withFile(part, fsyncSync)
    readBackup(part)
    // Reads all of its data, as a restore does.
    program(join(bin, 'pg_restore'), ['--file', '/dev/null', part], 'Reading the backup')
    renameSync(part, file)
    return bytes
  } catch (cause) {
    rmSync(part, { force: true })
    throw cause
  }
}

/** @throws where a file is no backup, or not all of one */
export function readBackup(file) {
  if (!existsSync(file)) throw new Error(`There is no file ${file}`)
  withFile(file, (handle) => {
    const { size } = fstatSync(handle)
    const trailer = Buffer.alloc(trailerBytes)
    if (size > trailerBytes) readSync(handle, trailer, 0, trailerBytes, size - trailerBytes)
    const words = trailer.toString('latin1')
    if (!words.startsWith(mark)) throw new Error(`${file} is no backup of this application, or not all of it`)
    if (digestOf(handle, size - trailerBytes) !== words.slice(mark.length, -1))
      throw new Error(`${file} is damaged`)
  })
}

/** The same address with another database. */
function inDatabase(url, name) {
  const address = new URL(url)
  address.pathname = `/${encodeURIComponent(name)}`
  return address.href
}

/** Runs statements in the database of an address: all of one text together, or none of them. */
function statements(bin, url, texts, what) {
  const { url: address, env } = withoutPassword(url)
  const commands = texts.flatMap((text) => ['--command', text])
  program(
    join(bin, 'psql'),
    ['--no-psqlrc', '--quiet', '--set', 'ON_ERROR_STOP=1', '--dbname', address, ...commands],
    what,
    env,
  )
}

const quoted = (name) => `"${name.replaceAll('"', '""')}"`

/** Data that came back are others than those that were seen before, whatever their versions say. */
const newEpoch = 'update workshop set epoch = gen_random_uuid()'

/**
 * Replaces all data of a database with a backup, or nothing if anything fails. Nobody may be connected to the
 * database at the swap.
 * @param prepare brings the database of an address up to date, and throws where it is of a newer version
 * @param whenLoaded is called before the old database is removed: open connections to it must close now
 * @throws where the file is no backup, is of a newer version, or the database is in use
 */
export async function restore(bin, url, file, prepare, whenLoaded = async () => {}) {
  readBackup(file)
  const name = decodeURIComponent(new URL(url).pathname.slice(1))
  const [loaded, replaced] = [`${name}_loading`, `${name}_replaced`]
  // Statements about a database are made from another one.
  const elsewhere = inDatabase(url, name === 'postgres' ? 'template1' : 'postgres')
  const beside = inDatabase(url, loaded)
  const drop = (one) => `drop database if exists ${quoted(one)}`
  statements(
    bin,
    elsewhere,
    [drop(loaded), drop(replaced), `create database ${quoted(loaded)} template template0`],
    'Creating the second database',
  )
  try {
    const { url: address, env } = withoutPassword(beside)
    // Rights are given again when the database is prepared.
    const load = ['--no-owner', '--no-privileges', '--exit-on-error', '--dbname', address, file]
    program(join(bin, 'pg_restore'), load, 'The restore', env)
    prepare(beside)
    statements(bin, beside, [newEpoch], 'The restore')
    await whenLoaded()
    const rename = (from, to) => `alter database ${quoted(from)} rename to ${quoted(to)}`
    // Both or neither: a text of two statements is one transaction.
    statements(
      bin,
      elsewhere,
      [`${rename(name, replaced)}; ${rename(loaded, name)}`],
      'Swapping the databases',
    )
  } catch (cause) {
    statements(bin, elsewhere, [drop(loaded)], 'Clearing up')
    throw cause
  }
  statements(bin, elsewhere, [drop(replaced)], 'Clearing up')
}

/**
 * Writes a backup to a file in a folder, named after the time. Only the owner can read either.
 * @param before the next operation: the first word of its name
 * @returns its name
 */
export function backUpBefore(before, bin, url, folder) {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const file = join(folder, `before-${before}-${new Date().toISOString().replace(/[:.]/g, '-')}.backup`)
  backUp(bin, url, file)
  return file
}

/** Keeps the newest backups of a folder that were made before the same, and removes the others. */
export function keepNewest(before, folder, count) {
  const files = readdirSync(folder)
    .filter((name) => name.startsWith(`before-${before}-`) && name.endsWith('.backup'))
    .sort()
  for (const name of files.slice(0, Math.max(0, files.length - count))) rmSync(join(folder, name))
}
