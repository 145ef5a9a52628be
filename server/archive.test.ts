import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { ZipFile } from 'yazl'
import { ask } from '../tests/api-client'
import { freshDatabase, startServer, type TestDatabase, type TestServer } from '../tests/harness'
import { archivedTables } from './archive/tables'
import { loadDemoYears } from './db/demo-years'
import type { JobPage } from './repositories/job-list'

const folder = mkdtempSync(join(tmpdir(), 'archive-test-'))
let [from, to]: TestDatabase[] = []
let [source, target]: TestServer[] = []
let archive: Buffer

/** Rows of a table without the workshop, with bytes as text: all that an archive must bring over. */
async function rowsOf(db: TestDatabase, { name, order, without = [] }: (typeof archivedTables)[number]) {
  const left = ['workshop_id', ...without].map((column) => `- '${column}'`).join(' ')
  const rows = await db.sql.unsafe<{ row: string }[]>(
    `select (to_jsonb(t) ${left})::text as row from ${name} t order by ${order}`,
  )
  return rows.map(({ row }) => row)
}
const upload = async (server: TestServer, body: Uint8Array) =>
  ask<{ error?: string; files?: number }>(server, 'POST', '/api/archive', body, {
    'content-type': 'application/zip',
  })
const zipOf = (files: Record<string, string>): Promise<Buffer> =>
  new Promise((resolve) => {
    const zip = new ZipFile()
    for (const [path, words] of Object.entries(files)) zip.addBuffer(Buffer.from(words), path)
    zip.end()
    const chunks: Buffer[] = []
    zip.outputStream.on('data', (chunk: Buffer) => chunks.push(chunk))
    zip.outputStream.on('end', () => {
      resolve(Buffer.concat(chunks))
    })
  })

beforeAll(async () => {
  from = await freshDatabase()
  await loadDemoYears(from.sql, fileURLToPath(new URL('../demo/years/years.json', import.meta.url)))
  source = await startServer(from.applicationUrl)
  const [job] = await from.sql<{ id: string }[]>`select job_id as id from job where number = '0433'`
  const photo = readFileSync(new URL('../tests/pixel.png', import.meta.url))
  for (const name of ['one', 'two'])
    await ask(source, 'POST', `/api/jobs/${job!.id}/photos?who=T&station=place&name=${name}`, photo, {
      'content-type': 'image/png',
    })
  const [belongs] = await from.sql<
    { craft: string }[]
  >`select craft_id as craft from job where number = '0433'`
  await ask(source, 'POST', `/api/craft/${belongs!.craft}/photos?who=T&words=Locker`, photo, {
    'content-type': 'image/png',
  })
  await fetch(`${source.url}/api/jobs/${job!.id}/sheets/1/pdf`).then((answer) => answer.arrayBuffer())
  to = await freshDatabase({ demo: false })
  await to.sql`insert into workshop (name) values ('My workshop')`
  target = await startServer(to.applicationUrl)
  archive = Buffer.from(await (await fetch(`${source.url}/api/archive`)).arrayBuffer())
}, 120_000)
afterAll(async () => {
  await Promise.all([source!.stop(), target!.stop()])
  await Promise.all([from!.drop(), to!.drop()])
  rmSync(folder, { recursive: true })
})

describe('an archive of a workshop', () => {
  it('that is damaged or of something else is refused with the reason, and nothing is changed', async () => {
    const turned = Buffer.from(archive)
    const middle = turned.indexOf('tables/job.jsonl') + 200
    turned[middle] = turned[middle]! ^ 0xff
    const stray = { 'manifest.json': '{}', 'x.txt': 'hello' }
    for (const [body, words] of [
      [archive.subarray(0, archive.length - 500), 'cut short'],
      [archive.subarray(0, 100), 'cut short'],
      [Buffer.from('no archive at all'), 'cut short'],
      [turned, 'damaged'],
      [await zipOf(stray), 'no archive of a workshop'],
      [await zipOf({ 'a.txt': 'x' }), 'lacks manifest.json'],
    ] as const) {
      const { status, body: answer } = await upload(target!, body)
      expect({ status, isSaid: answer.error?.includes(words), error: answer.error }).toMatchObject({
        status: 422,
        isSaid: true,
      })
      expect(answer.error).toContain('Nothing was changed.')
    }
    for (const table of archivedTables) expect(await rowsOf(to!, table)).toEqual([])
  })

  it('holds no secret', async () => {
    const file = join(folder, 'archive.zip')
    writeFileSync(file, archive)
    const names = archive.toString('latin1').match(/tables\/\w+\.jsonl/g)!
    expect(new Set(names)).toEqual(new Set(archivedTables.map(({ name }) => `tables/${name}.jsonl`)))
  })

  it('comes in again with nothing lost: every table, and every photo to the byte', async () => {
    const { status, body } = await upload(target!, archive)
    expect({ status, body }).toMatchObject({ status: 200 })
    for (const table of archivedTables) {
      const [before, after] = [await rowsOf(from!, table), await rowsOf(to!, table)]
      expect({ name: table.name, same: JSON.stringify(after) === JSON.stringify(before) }).toEqual({
        name: table.name,
        same: true,
      })
    }
    for (const name of ['job', 'sheet', 'photo', 'log_entry', 'craft_photo', 'sheet_pdf']) {
      const table = archivedTables.find((one) => one.name === name)!
      expect((await rowsOf(to!, table)).length).toBeGreaterThan(0)
    }
    const settings = (db: TestDatabase) =>
      db.sql`select name, rules, units, letterhead, last_number from workshop`
    expect(await settings(to!)).toEqual(await settings(from!))
    const { body: page } = await ask<JobPage>(target!, 'GET', '/api/jobs')
    expect(page.jobs).toHaveLength(6)
    const next = await ask<{ document: { job: { number: string } } }>(target!, 'POST', '/api/jobs', {
      who: 'T',
    })
    expect(next.body.document.job.number).toBe('0434')
  })

  it('does not go into a workshop that holds something', async () => {
    const { status, body } = await upload(source!, archive)
    expect([status, body.error]).toEqual([
      422,
      'This workshop holds jobs or parts already. An archive goes into an empty one. Nothing was changed.',
    ])
  })
})
