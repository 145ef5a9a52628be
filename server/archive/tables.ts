/** A table of a workshop as an archive holds it. */
export interface ArchivedTable {
  readonly name: string
  /** Rows come in this order: a row that names another follows it. It is a key where the table has bytes. */
  readonly order: string
  /** A column of bytes, kept as a file of its own. */
  readonly bytes?: string
  /** Omitted columns: secrets, and the database's own counters. */
  readonly without?: readonly string[]
}

/**
 * The tables of a workshop, each after the tables that it references. Omitted are credentials (sessions, keys,
 * PINs, links) and short-lived rows (orders of devices, presence).
 */
export const archivedTables: readonly ArchivedTable[] = [
  { name: 'person', order: 'person_id', without: ['password'] },
  { name: 'customer', order: 'customer_id' },
  { name: 'craft', order: 'craft_id' },
  { name: 'job', order: 'job_id' },
  { name: 'job_history', order: 'job_id, version' },
  { name: 'shelf_part', order: 'kind, code, version' },
  { name: 'photo', order: 'job_id, photo_id', bytes: 'data' },
  { name: 'sheet', order: 'job_id, count' },
  { name: 'sheet_pdf', order: 'job_id, count', bytes: 'data' },
  { name: 'quotation_answer', order: 'job_id, count' },
  { name: 'customer_message', order: 'at, message_id' },
  { name: 'log_entry', order: 'place', without: ['place'] },
  { name: 'craft_photo', order: 'entry_id', bytes: 'data' },
  { name: 'reminder', order: 'reminder_id' },
]

/** A workshop's settings. */
export const workshopColumns = [
  'name',
  'rules',
  'units',
  'currency',
  'version',
  'last_number',
  'letterhead',
  'letterhead_version',
] as const

export const archiveFormat = 'jovial-anchor/archive'
export const archiveVersion = 1
export const manifestPath = 'manifest.json'
export const settingsPath = 'workshop.json'
export const tablePath = (name: string): string => `tables/${name}.jsonl`
/** The file with the bytes of a row: `files/photo/12.bin`. */
export const bytesPath = (table: string, row: number): string => `files/${table}/${row}.bin`

export interface ArchivedFile {
  readonly path: string
  readonly bytes: number
  readonly sha256: string
}

export interface Manifest {
  readonly format: typeof archiveFormat
  readonly version: typeof archiveVersion
  /** The last migration of the database that it was made from. */
  readonly schema: number
  readonly madeAt: string
  readonly workshop: string
  readonly files: readonly ArchivedFile[]
}
