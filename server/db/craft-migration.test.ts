import { cp, mkdtemp, readdir, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { afterEach, beforeEach, expect, it } from 'vitest'
import { emptyJob, type JobHead } from '#core/job/document'
import { freshDatabase, type TestDatabase } from '../../tests/harness'
import { migrate } from './migrate'

const all = fileURLToPath(new URL('migrations', import.meta.url))
let db: TestDatabase
let older: string

beforeEach(async () => {
  db = await freshDatabase({ migrated: false })
  older = await mkdtemp(join(tmpdir(), 'older-'))
  for (const name of await readdir(all)) if (name < '017') await cp(join(all, name), join(older, name))
})
afterEach(async () => {
  await db.drop()
  await rm(older, { recursive: true })
})

it('gives every job of an older database its craft and its customer', async () => {
  const { sql } = db
  await migrate(sql, older)
  const [{ id }] = await sql<[{ id: string }]>`
    insert into workshop (name) values ('Slip') returning workshop_id as id`
  const jobs: readonly (readonly [number: string, head: Partial<JobHead>])[] = [
    ['1', { name: 'Tern', customer: 'Wenna Pike', registration: 'PL 1' }],
    // The same registration of the same customer, whatever it is called; the newest names it.
    ['2', { name: 'The Tern', customer: 'wenna pike ', registration: 'pl 1', contact: 'wenna@pike.example' }],
    ['3', { name: 'Gull', customer: 'Wenna Pike' }],
    ['4', { name: ' gull', customer: 'Wenna Pike' }],
    // Another person of the same name.
    ['5', { name: 'Gull', customer: 'Wenna Pike', contact: 'other@pike.example' }],
    ['6', { name: 'New job' }],
    ['7', { name: 'New job' }],
  ]
  for (const [i, [number, head]] of jobs.entries()) {
    const document = { ...emptyJob(number), job: { ...emptyJob(number).job, ...head } }
    await sql`
      insert into job (workshop_id, document, number, name, customer, stage, verdict, headline, reason, search, updated_by, created_at)
      values (${id}, ${sql.json(document as never)}, ${number}, ${head.name!}, ${head.customer ?? ''}, 'enquiry', 'suits', '', '',
        '', 'Ida', now() + ${i} * interval '1 minute')`
  }
  await migrate(sql, all)
  const rows = await sql<{ number: string; craft: string; craftName: string; customer: string | null }[]>`
    select number, job.craft_id as craft, craft.name as "craftName", customer.contact as customer
    from job join craft using (workshop_id, craft_id)
      left join customer on (customer.workshop_id, customer.customer_id) = (job.workshop_id, job.customer_id)
    order by number`
  const same = (...numbers: string[]): number =>
    new Set(rows.filter(({ number }) => numbers.includes(number)).map(({ craft }) => craft)).size
  expect(rows).toHaveLength(7)
  expect([same('1', '2'), same('3', '4'), same('1', '3'), same('3', '5'), same('6', '7')]).toEqual([
    1, 1, 2, 2, 2,
  ])
  expect(rows[0]!.craftName).toBe('The Tern')
  const customers = await sql<
    { name: string; contact: string }[]
  >`select name, contact from customer order by contact`
  expect(customers.map(({ contact }) => contact)).toEqual(['other@pike.example', 'wenna@pike.example'])
  expect(rows.slice(5).map(({ customer }) => customer)).toEqual([null, null])
})
