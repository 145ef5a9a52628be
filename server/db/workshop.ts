import { readdir, readFile } from 'node:fs/promises'
import { join } from 'node:path'
import type { Sql } from 'postgres'
import { readJobFile } from '#core/formats/job-file'
import { readShelfCsv } from '#core/formats/shelf-csv'
import type { ShelfKindId } from '#core/shelf/kinds'
import { createJob } from './jobs'
import { storeParts } from './shelf'

/** Until there are accounts, the server serves the one workshop of its database. */
export async function theWorkshop(sql: Sql): Promise<string> {
  const [row] = await sql<{ id: string }[]>`select workshop_id as id from workshop order by created_at limit 1`
  if (!row) throw new Error('The database holds no workshop: run npm start once to set it up')
  return row.id
}

/** Puts the demo workshop, its shelf and its jobs into a database without a workshop. Gives the number of jobs loaded. */
export function loadDemo(sql: Sql, folder: string): Promise<number> {
  const jobs = join(folder, 'jobs')
  return sql.begin(async (transaction) => {
    const tx = transaction as unknown as Sql
    await tx`lock table workshop in exclusive mode`
    const [existing] = await tx`select 1 from workshop limit 1`
    if (existing) return 0
    const [workshop] = await tx<{ id: string }[]>`insert into workshop (name) values ('Larkspur Slip Electrics') returning workshop_id as id`
    for (const shelf of ['shelf', 'shelf/updates']) await loadShelf(tx, workshop!.id, join(folder, shelf))
    const files = (await readdir(jobs)).filter((name) => name.endsWith('.json')).sort().reverse()
    for (const file of files) {
      const read = readJobFile(await readFile(join(jobs, file), 'utf8'))
      if (!read.ok) throw new Error(`${file}: ${read.problems.map((p) => `${p.path} ${p.message}`).join('; ')}`)
      const { id } = await createJob(tx, workshop!.id, read.job, 'demo')
      // All of one transaction share one time; set apart so that the first job heads the list.
      await tx`update job set updated_at = now() + ${files.indexOf(file)} * interval '1 millisecond' where job_id = ${id}`
    }
    return files.length
  }) as Promise<number>
}

/** Puts the tables of a folder, one a kind, on the shelf. */
async function loadShelf(sql: Sql, workshop: string, folder: string): Promise<void> {
  for (const file of (await readdir(folder)).filter((name) => name.endsWith('.csv'))) {
    const kind = file.replace('.csv', '') as ShelfKindId
    const { parts, problems } = readShelfCsv(await readFile(join(folder, file), 'utf8'), kind)
    if (problems.length > 0) throw new Error(`${file}: ${problems.map((p) => `line ${p.line} ${p.column} ${p.reason}`).join('; ')}`)
    await storeParts(sql, workshop, kind, parts, 'demo')
  }
}
