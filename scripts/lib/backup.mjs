// Backups of a database: what pg_dump writes, with a digest of it behind, so that a damaged one is known before
// anything is touched. A backup is taken of a database in use; a restore replaces all at once or nothing.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

const mark = '\njovial-anchor backup, sha256 '
const trailerBytes = mark.length + 64 + 1
const digestOf = (bytes) => createHash('sha256').update(bytes).digest('hex')

function program(command, args, what, options = {}) {
  const result = spawnSync(command, args, { maxBuffer: 2 ** 31 - 1, ...options })
  if (result.error || result.status !== 0)
    throw new Error(`${what} failed: ${result.error?.message ?? String(result.stderr).trim()}`)
  return result.stdout
}

/** Writes a backup of the database of an address to a file. The file is whole and checked, or it is not there. */
export function backUp(bin, url, file) {
  const dump = program(join(bin, 'pg_dump'), ['--format=custom', '--no-owner', '--dbname', url], 'The backup')
  const part = `${file}.part`
  writeFileSync(part, Buffer.concat([dump, Buffer.from(`${mark}${digestOf(dump)}\n`)]), { flush: true })
  readBackup(part)
  renameSync(part, file)
  return dump.length
}

/** What a backup holds, or an error that says why it is none. */
export function readBackup(file) {
  if (!existsSync(file)) throw new Error(`There is no file ${file}`)
  const bytes = readFileSync(file)
  const trailer = bytes.subarray(Math.max(0, bytes.length - trailerBytes)).toString('latin1')
  if (!trailer.startsWith(mark)) throw new Error(`${file} is no backup of this application, or not all of it`)
  const dump = bytes.subarray(0, bytes.length - trailerBytes)
  if (digestOf(dump) !== trailer.slice(mark.length, -1)) throw new Error(`${file} is damaged`)
  return dump
}

/** Puts a backup in place of what a database holds: all of it, or nothing where anything fails. */
export function restore(bin, url, file) {
  const dump = readBackup(file)
  const tool = join(bin, 'pg_restore')
  program(tool, ['--list'], 'Reading the backup', { input: dump })
  program(
    tool,
    [
      '--clean',
      '--if-exists',
      '--no-owner',
      // Rights are given anew when the database is prepared.
      '--no-privileges',
      '--single-transaction',
      '--exit-on-error',
      '--dbname',
      url,
    ],
    'The restore',
    { input: dump },
  )
}

/**
 * Writes a backup to a file of a folder that bears the moment.
 * @param before what it is made before: the first word of its name
 * @returns its name
 */
export function backUpBefore(before, bin, url, folder) {
  mkdirSync(folder, { recursive: true })
  const file = join(folder, `before-${before}-${new Date().toISOString().replace(/[:.]/g, '-')}.backup`)
  backUp(bin, url, file)
  return file
}

/** Keeps the newest backups of a folder that were made before the same, and takes the others away. */
export function keepNewest(before, folder, count) {
  const files = readdirSync(folder)
    .filter((name) => name.startsWith(`before-${before}-`) && name.endsWith('.backup'))
    .sort()
  for (const name of files.slice(0, Math.max(0, files.length - count))) rmSync(join(folder, name))
}
