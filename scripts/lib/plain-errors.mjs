// Words for failures of the machine that a person can act on, in place of a stack trace.
import { statfsSync } from 'node:fs'
import { dirname } from 'node:path'

/** Below this much free space a disk counts as full, bytes. */
const leastRoom = 16 * 1024 * 1024

/** Whether the disk with this folder is full. */
export function isDiskFull(folder) {
  try {
    const { bavail, bsize } = statfsSync(folder)
    return bavail * bsize < leastRoom
  } catch {
    return false
  }
}

const unreachable = ['ECONNREFUSED', 'ECONNRESET', 'ENOTFOUND', 'EAI_AGAIN', 'ETIMEDOUT', 'CONNECT_TIMEOUT']
const readOnly = ['EACCES', 'EROFS', 'EPERM']
const full = ['ENOSPC', 'EDQUOT', '53100']
const refused = ['28P01', '28000']

const hostOf = (url) => (URL.canParse(url ?? '') ? ` at ${new URL(url).host}` : '')

/**
 * Plain words for a failure of the machine or the database; null for any other error.
 * @param url of the database in use, if any
 */
export function plainWords(cause, url = process.env.DATABASE_URL) {
  // A host with two addresses gives one error for each, usually for the same reason.
  const { code = '', path = null, dest = null, syscall = null } = cause?.errors?.[0] ?? cause ?? {}
  const where = dest ?? path
  if (full.includes(code))
    return `The disk ${where ? `with ${dirname(where)}` : 'of the database'} is full. Free some space, then start again.`
  // Making a folder and its parents on a read-only disk ends in ENOENT.
  if (where && (readOnly.includes(code) || (code === 'ENOENT' && syscall === 'mkdir')))
    return `Cannot write to ${where}. Allow this user to write there, or set JOVIAL_ANCHOR_DATA to another data folder.`
  if (refused.includes(code))
    return `The database${hostOf(url)} refuses the user name or password of its address.`
  if (code === '3D000') return `The server${hostOf(url)} has no database of the name in its address.`
  if (unreachable.includes(code))
    return `Cannot reach the database${hostOf(url)} (${code}). Start it, or correct its address in DATABASE_URL.`
  return null
}

/** Ends this program on an uncaught error: with plain words where `plainWords` has them, otherwise with the stack. */
export function speakPlainly() {
  process.on('uncaughtException', (cause) => {
    console.error(plainWords(cause) ?? cause)
    process.exit(1)
  })
}
