// Backups of a database: the file that pg_dump writes, with a digest at its end, so that a damaged one is refused
// before anything is touched. Files of any size are read piece by piece. A restore replaces everything or nothing.
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

/** Puts a backup in place of what a database holds: all of it, or nothing where anything fails. */
export function restore(bin, url, file) {
  readBackup(file)
  const { url: address, env } = withoutPassword(url)
  const tool = join(bin, 'pg_restore')
  program(tool, ['--list', file], 'Reading the backup')
  program(
    tool,
    [
      '--clean',
      '--if-exists',
      '--no-owner',
      // Rights are given again when the database is prepared.
      '--no-privileges',
      '--single-transaction',
      '--exit-on-error',
      '--dbname',
      address,
      file,
    ],
    'The restore',
    env,
  )
}

/**
 * Writes a backup to a file of a folder, named by the moment. Only the owner reads either.
 * @param before what it is made before: the first word of its name
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
