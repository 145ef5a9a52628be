// What is said of a failure of the machine, in words a person can act on in place of a stack.
import { statfsSync } from 'node:fs'
import { dirname } from 'node:path'

/** A disk with less room than this is as good as full, bytes. */
const leastRoom = 16 * 1024 * 1024

/** Whether the disk that holds a folder is full. */
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
 * Words for a failure of the machine or of the database; null where it is none of those that are known.
 * @param url of the database that was asked, where one was
 */
export function plainWords(cause, url = process.env.DATABASE_URL) {
  // Two addresses of one name fail as one: each for the same reason, mostly.
  const { code = '', path = null, dest = null } = cause?.errors?.[0] ?? cause ?? {}
  const where = dest ?? path
  if (full.includes(code))
    return `The disk${where ? ` that holds ${dirname(where)}` : ' of the database'} is full. Make room, then start again.`
  if (readOnly.includes(code) && where)
    return `${where} cannot be written. Allow this user to write there, or name another folder of data with JOVIAL_ANCHOR_DATA.`
  if (refused.includes(code))
    return `The database${hostOf(url)} refuses the name or the password of its address.`
  if (code === '3D000') return `The database${hostOf(url)} does not hold the one that its address names.`
  if (unreachable.includes(code))
    return `The database${hostOf(url)} cannot be reached (${code}). Start it, or mend its address in DATABASE_URL.`
  return null
}

/** From now on a failure that nothing catches ends this program with such words, and with its stack where there are none. */
export function speakPlainly() {
  process.on('uncaughtException', (cause) => {
    console.error(plainWords(cause) ?? cause)
    process.exit(1)
  })
}
