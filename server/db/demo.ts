import { readdir, readFile } from 'node:fs/promises'
import { join } from 'node:path'
import type { Sql } from 'postgres'
import { readJobFile } from '#core/formats/job-file'
import { readShelfCsv } from '#core/formats/shelf-csv'
import type { JobDocument } from '#core/job/document'
import type { ShelfKindId } from '#core/shelf/kinds'
import { metric } from '#core/units/display'
import { judgeHere } from '../judging/judge'
import type { ListVerdict } from '../judging/work'
import { repositoriesOf } from '../repositories/index'
import type { Shelf } from '../repositories/shelf'

/** The demo jobs, checked, the one that is to head the list last. */
async function judgedJobs(folder: string): Promise<{ document: JobDocument; judged: ListVerdict }[]> {
  const files = (await readdir(folder))
    .filter((name) => name.endsWith('.json'))
    .sort()
    .reverse()
  return Promise.all(
    files.map(async (file) => {
      const read = readJobFile(await readFile(join(folder, file), 'utf8'))
      if (!read.ok)
        throw new Error(`${file}: ${read.problems.map((p) => `${p.path} ${p.message}`).join('; ')}`)
      return {
        document: read.job,
        judged: await judgeHere.verdict({ document: read.job, rules: {}, units: metric }),
      }
    }),
  )
}

/**
 * Puts the demo workshop, its shelf and its jobs into a database without a workshop. Gives the number of jobs
 * loaded.
 */
export async function loadDemo(sql: Sql, folder: string): Promise<number> {
  const [existing] = await sql`select 1 from workshop limit 1`
  if (existing) return 0
  const jobs = await judgedJobs(join(folder, 'jobs'))
  return sql.begin(async (transaction) => {
    const tx = transaction as unknown as Sql
    await tx`lock table workshop in exclusive mode`
    const [meanwhile] = await tx`select 1 from workshop limit 1`
    if (meanwhile) return 0
    const [workshop] = await tx<
      { id: string; epoch: string }[]
    >`insert into workshop (name) values ('Larkspur Slip Electrics') returning workshop_id as id, epoch`
    const { id, epoch } = workshop!
    const to = repositoriesOf(tx, { workshop: id, person: 'demo', role: 'owner', epoch }, judgeHere)
    for (const tables of ['shelf', 'shelf/updates']) await loadShelf(tx, to.shelf, join(folder, tables))
    for (const [i, { document, judged }] of jobs.entries()) {
      const { id } = await to.jobs.insert(tx, document, { judged })
      // All of one transaction share one time; set apart so that the first job heads the list.
      await tx`update job set updated_at = now() + ${i} * interval '1 millisecond' where job_id = ${id}`
    }
    return jobs.length
  }) as Promise<number>
}

/** Puts the tables of a folder, one a kind, on the shelf. */
async function loadShelf(tx: Sql, shelf: Shelf, folder: string): Promise<void> {
  for (const file of (await readdir(folder)).filter((name) => name.endsWith('.csv'))) {
    const kind = file.replace('.csv', '') as ShelfKindId
    const { parts, problems } = readShelfCsv(await readFile(join(folder, file), 'utf8'), kind)
    if (problems.length > 0)
      throw new Error(`${file}: ${problems.map((p) => `line ${p.line} ${p.column} ${p.reason}`).join('; ')}`)
    await shelf.store(tx, kind, parts)
  }
}
