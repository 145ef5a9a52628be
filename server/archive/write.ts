import { createHash } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { Readable, Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { Sql } from 'postgres'
import { ZipFile } from 'yazl'
import { first } from '../repositories/first'
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
  type ArchivedFile,
  type ArchivedTable,
  type Manifest,
} from './tables'

const rowsAtOnce = 200

/** Adds files to an archive one after another, and notes the digest of each. */
class Packer {
  readonly zip = new ZipFile()
  readonly files: ArchivedFile[] = []

  /** Adds a file whose content is read when its turn comes. */
  add(path: string, content: () => Readable, compress = true): void {
    this.zip.addReadStreamLazy(path, { compress }, (use) => {
      const hash = createHash('sha256')
      let bytes = 0
      const counted = new Transform({
        transform: (chunk: Buffer, _encoding, done) => {
          hash.update(chunk)
          bytes += chunk.length
          done(null, chunk)
        },
        flush: (done) => {
          this.files.push({ path, bytes, sha256: hash.digest('hex') })
          done()
        },
      })
      const source = content()
      source.on('error', (cause) => counted.destroy(cause))
      use(null, source.pipe(counted))
    })
  }
}

/** Names of tables and columns come from {@link archivedTables} alone. */
const listed = (sql: Sql, { name, order, bytes, without = [] }: ArchivedTable, workshop: string) => {
  const left = ['workshop_id', ...(bytes ? [bytes] : []), ...without]
    .map((column) => `- '${column}'`)
    .join(' ')
  return sql.unsafe<{ row: unknown }[]>(
    `select to_jsonb(t) ${left} as row from ${name} t where workshop_id = $1 order by ${order}`,
    [workshop],
  )
}

async function* lines(sql: Sql, table: ArchivedTable, workshop: string): AsyncGenerator<string> {
  for await (const rows of listed(sql, table, workshop).cursor(rowsAtOnce))
    yield rows.map(({ row }) => `${JSON.stringify(row)}\n`).join('')
}

/** The key of a table's rows within its workshop, in the order of its lines. */
type Key = readonly (string | number)[]
async function keysOf(sql: Sql, { name, order }: ArchivedTable, workshop: string): Promise<Key[]> {
  const rows = await sql.unsafe<Record<string, string | number>[]>(
    `select ${order} from ${name} where workshop_id = $1 order by ${order}`,
    [workshop],
  )
  return rows.map((row) => Object.values(row))
}

async function* bytesOf(
  sql: Sql,
  { name, order, bytes }: ArchivedTable,
  workshop: string,
  key: Key,
): AsyncGenerator<Buffer> {
  const places = key.map((_, i) => `$${i + 2}`).join(', ')
  const found = await sql.unsafe<{ data: Buffer }[]>(
    `select ${bytes} as data from ${name} where workshop_id = $1 and (${order}) = (${places})`,
    [workshop, ...key],
  )
  yield first(found).data
}

/**
 * Writes everything of a workshop into a ZIP file: tables as lines of JSON, bytes as files, and a manifest with a
 * digest of each. No secret is in it.
 * @param sql a transaction that sees one state of the data
 * @param file where it is written
 */
export async function writeArchive(sql: Sql, workshop: string, file: string): Promise<void> {
  const packer = new Packer()
  const settings = await sql.unsafe<{ name: string }[]>(
    `select ${workshopColumns.join(', ')} from workshop where workshop_id = $1`,
    [workshop],
  )
  packer.add(settingsPath, () => Readable.from([Buffer.from(JSON.stringify(first(settings)))]))
  for (const table of archivedTables) {
    packer.add(tablePath(table.name), () => Readable.from(lines(sql, table, workshop), { objectMode: false }))
    if (!table.bytes) continue
    for (const [row, key] of (await keysOf(sql, table, workshop)).entries())
      packer.add(
        bytesPath(table.name, row),
        () => Readable.from(bytesOf(sql, table, workshop, key), { objectMode: false }),
        false,
      )
  }
  packer.zip.addReadStreamLazy(manifestPath, (use) => {
    const manifest: Manifest = {
      format: archiveFormat,
      version: archiveVersion,
      schema: schemaNumber,
      madeAt: new Date().toISOString(),
      workshop: first(settings).name,
      files: packer.files,
    }
    use(null, Readable.from([Buffer.from(JSON.stringify(manifest, null, 2))]))
  })
  packer.zip.end()
  const failed = new Promise<never>((_, reject) => packer.zip.on('error', reject))
  await Promise.race([pipeline(packer.zip.outputStream, createWriteStream(file, { mode: 0o600 })), failed])
}
