import { createReadStream, createWriteStream } from 'node:fs'
import { mkdtemp, rm, stat } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { Sql } from 'postgres'
import { connect } from '../db/connection'
import { Refusal } from './refusal'

/** An archive that is being sent: its length, and its bytes. The file goes once they are read. */
interface ArchiveFile {
  readonly bytes: number
  readonly stream: Readable
}

/** A temporary file, and the function that removes it. */
async function temporaryFile(): Promise<{ readonly file: string; readonly remove: () => Promise<void> }> {
  const folder = await mkdtemp(join(tmpdir(), 'jovial-anchor-'))
  return { file: join(folder, 'archive.zip'), remove: () => rm(folder, { recursive: true, force: true }) }
}

/** Does something with a file of its own, which is removed afterwards. */
export async function withTemporaryFile<T>(work: (file: string) => Promise<T>): Promise<T> {
  const { file, remove } = await temporaryFile()
  try {
    return await work(file)
  } finally {
    await remove()
  }
}

/** Makes a file and gives it as a stream; it is removed once the stream is closed. */
export async function temporaryStream(make: (file: string) => Promise<void>): Promise<ArchiveFile> {
  const { file, remove } = await temporaryFile()
  try {
    await make(file)
  } catch (cause) {
    await remove()
    throw cause
  }
  const stream = createReadStream(file)
  stream.once('close', () => void remove())
  return { bytes: (await stat(file)).size, stream }
}

/** Writes a request to a file. @throws a refusal if it is larger than so many GB */
export async function receive(request: AsyncIterable<Buffer>, file: string, mostGb: number): Promise<void> {
  let size = 0
  async function* counted() {
    for await (const chunk of request) {
      size += chunk.length
      if (size > mostGb * 1024 ** 3)
        throw new Refusal(413, `This is larger than ${mostGb} GB, the limit here`)
      yield chunk
    }
  }
  await pipeline(counted, createWriteStream(file, { mode: 0o600 }))
}

/**
 * A transaction on a connection of its own: a whole workshop takes longer than a request may hold one of the pool.
 */
export async function longTransaction<T>(
  workshop: string,
  mode: 'read only' | 'read write',
  work: (tx: Sql) => Promise<T>,
): Promise<T> {
  const sql = connect(process.env.DATABASE_URL ?? '', { max: 1 })
  try {
    return (await sql.begin(`isolation level repeatable read ${mode}`, async (transaction) => {
      const tx = transaction as unknown as Sql
      await tx`select set_config('jovial.scope', ${workshop}, true)`
      await tx`set local idle_in_transaction_session_timeout = 0`
      await tx`set local statement_timeout = 0`
      return work(tx)
    })) as T
  } finally {
    await sql.end()
  }
}
