import Joi from 'joi'
import { createHash } from 'node:crypto'
import { createInterface } from 'node:readline'
import type { Readable } from 'node:stream'
import type { Sql } from 'postgres'
import { open, type Entry, type ZipFile } from 'yauzl'
import { schemaNumber } from '../db/schema'
import {
  archivedTables,
  archiveFormat,
  archiveVersion,
  bytesPath,
  manifestPath,
  settingsPath,
  tablePath,
  workshopColumns,
  type ArchivedTable,
  type Manifest,
} from './tables'

/** Why an archive is not taken, in words. Nothing was changed. */
export class BadArchive extends Error {}

const largestManifestBytes = 64 * 1024 * 1024
const rowsAtOnce = 200
const mostEntries = 1_000_000

const manifestSchema = Joi.object<Manifest>({
  format: Joi.valid(archiveFormat).required(),
  version: Joi.valid(archiveVersion).required(),
  schema: Joi.number().integer().required(),
  madeAt: Joi.string().isoDate().required(),
  workshop: Joi.string().allow('').required(),
  files: Joi.array()
    .items(
      Joi.object({
        path: Joi.string().required(),
        bytes: Joi.number().integer().min(0).required(),
        sha256: Joi.string().hex().length(64).required(),
      }),
    )
    .required(),
})

/** An archive that was opened: its files by path. */
class Archive {
  private constructor(
    private readonly zip: ZipFile,
    readonly entries: ReadonlyMap<string, Entry>,
  ) {}

  /** @throws BadArchive if the file is no ZIP file, or is cut short */
  static async at(file: string): Promise<Archive> {
    const zip = await new Promise<ZipFile>((resolve, reject) => {
      open(file, { lazyEntries: true, autoClose: false }, (cause, opened) => {
        if (cause) reject(new BadArchive('This file is no archive, or it is cut short.'))
        else resolve(opened)
      })
    })
    const entries = new Map<string, Entry>()
    await new Promise<void>((resolve, reject) => {
      zip.on('error', () => {
        reject(new BadArchive('The archive is damaged.'))
      })
      zip.on('end', () => {
        resolve()
      })
      zip.on('entry', (entry: Entry) => {
        if (entries.size > mostEntries)
          return void reject(new BadArchive('The archive holds too many files.'))
        entries.set(entry.fileName, entry)
        zip.readEntry()
      })
      zip.readEntry()
    })
    return new Archive(zip, entries)
  }

  stream(path: string): Promise<Readable> {
    const entry = this.entries.get(path)
    if (!entry) return Promise.reject(new BadArchive(`The archive lacks ${path}.`))
    return new Promise((resolve, reject) => {
      this.zip.openReadStream(entry, (cause, stream) => {
        if (cause) reject(new BadArchive(`The archive is damaged at ${path}.`))
        else resolve(stream)
      })
    })
  }

  async whole(path: string, most: number): Promise<Buffer> {
    const chunks: Buffer[] = []
    let size = 0
    for await (const chunk of (await this.stream(path)) as AsyncIterable<Buffer>) {
      size += chunk.length
      if (size > most) throw new BadArchive(`The archive is damaged at ${path}.`)
      chunks.push(chunk)
    }
    return Buffer.concat(chunks)
  }

  close(): void {
    this.zip.close()
  }
}

async function manifestOf(archive: Archive): Promise<Manifest> {
  let given: unknown
  try {
    given = JSON.parse((await archive.whole(manifestPath, largestManifestBytes)).toString('utf8'))
  } catch (cause) {
    if (cause instanceof BadArchive) throw cause
    throw new BadArchive('The manifest of the archive cannot be read.')
  }
  const { value, error } = manifestSchema.validate(given)
  if (error) throw new BadArchive('This is no archive of a workshop, or one of a newer version.')
  if (value.schema !== schemaNumber)
    throw new BadArchive(
      `The archive was made with schema ${value.schema}; this version has ${schemaNumber}. Start the version that made it, or update.`,
    )
  return value
}

/** Compares every file with the manifest. @throws BadArchive for the first that differs */
async function check(archive: Archive, { files }: Manifest): Promise<void> {
  const known = new Set([manifestPath, ...files.map(({ path }) => path)])
  for (const path of archive.entries.keys())
    if (!known.has(path)) throw new BadArchive(`${path} is not in the manifest of the archive.`)
  for (const { path, bytes, sha256 } of files) {
    const hash = createHash('sha256')
    let size = 0
    try {
      for await (const chunk of (await archive.stream(path)) as AsyncIterable<Buffer>) {
        size += chunk.length
        if (size > bytes) break
        hash.update(chunk)
      }
    } catch (cause) {
      if (cause instanceof BadArchive) throw cause
      throw new BadArchive(`The archive is damaged at ${path}.`)
    }
    if (size !== bytes || hash.digest('hex') !== sha256)
      throw new BadArchive(`${path} differs from the manifest: the archive was changed or damaged.`)
  }
  for (const path of [settingsPath, ...archivedTables.map(({ name }) => tablePath(name))])
    if (!known.has(path)) throw new BadArchive(`The archive lacks ${path}.`)
}

/** Columns of a table that are filled from an archive. */
async function columnsOf(sql: Sql, { name, without = [] }: ArchivedTable): Promise<string[]> {
  const rows = await sql<{ column: string }[]>`
    select column_name as column from information_schema.columns
    where table_schema = 'public' and table_name = ${name} and is_generated = 'NEVER' and is_identity = 'NO'`
  return rows.map(({ column }) => column).filter((column) => !without.includes(column))
}

async function fill(sql: Sql, archive: Archive, table: ArchivedTable, workshop: string): Promise<void> {
  const columns = (await columnsOf(sql, table)).map((column) => `"${column}"`).join(', ')
  const insert = (rows: readonly unknown[]) =>
    sql.unsafe(
      `insert into ${table.name} (${columns}) select ${columns} from jsonb_populate_recordset(null::${table.name}, $1::jsonb)
        ${table.name === 'person' ? 'on conflict do nothing' : ''}`,
      [sql.json(rows as never) as never],
    )
  let batch: unknown[] = []
  let row = 0
  for await (const line of createInterface({ input: await archive.stream(tablePath(table.name)) })) {
    const given = { ...(JSON.parse(line) as object), workshop_id: workshop } as Record<string, unknown>
    if (table.bytes) {
      const data = await archive.whole(bytesPath(table.name, row), largestManifestBytes)
      given[table.bytes] = `\\x${data.toString('hex')}`
    }
    row++
    batch.push(given)
    if (batch.length === rowsAtOnce || table.bytes) {
      await insert(batch)
      batch = []
    }
  }
  if (batch.length > 0) await insert(batch)
}

/** Whether a workshop holds nothing yet but its people and settings. */
async function isEmpty(sql: Sql, workshop: string): Promise<boolean> {
  const tables = ['customer', 'craft', 'job', 'shelf_part']
  const counts = await sql.unsafe<{ held: boolean }[]>(
    tables
      .map((name) => `select exists (select 1 from ${name} where workshop_id = $1) as held`)
      .join(' union all '),
    [workshop],
  )
  return counts.every(({ held }) => !held)
}

/**
 * Takes an archive into an empty workshop. Every file is compared with the manifest before anything is written, and
 * all is written in the transaction or nothing.
 * @param sql a transaction that sees the workshop alone
 * @throws BadArchive with the reason if it is not taken
 */
export async function readArchive(sql: Sql, workshop: string, file: string): Promise<Manifest> {
  const archive = await Archive.at(file)
  try {
    const manifest = await manifestOf(archive)
    await check(archive, manifest)
    await sql`select 1 from workshop where workshop_id = ${workshop} for update`
    if (!(await isEmpty(sql, workshop)))
      throw new BadArchive('This workshop holds jobs or parts already. An archive goes into an empty one.')
    const settings = JSON.parse(
      (await archive.whole(settingsPath, largestManifestBytes)).toString('utf8'),
    ) as Record<string, unknown>
    const columns = workshopColumns.map((column) => `"${column}"`)
    await sql.unsafe(
      `update workshop set (${columns.join(', ')}) = (select ${columns.join(', ')}
        from jsonb_populate_record(null::workshop, $2::jsonb)), epoch = gen_random_uuid() where workshop_id = $1`,
      [workshop, sql.json(settings as never) as never],
    )
    for (const table of archivedTables) await fill(sql, archive, table, workshop)
    return manifest
  } finally {
    archive.close()
  }
}
