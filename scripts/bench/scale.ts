import type { Demo } from '../lib/demo'
import { ms } from './demo-jobs'

const jobs = Number(process.env.JOBS ?? 1_000_000)
const batch = 50_000
const tries = 200

/** A list, a page further on, searches: the address of each. */
const questions = (next: string): Readonly<Record<string, (i: number) => string>> => ({
  list: () => '',
  'next page': () => `?after=${encodeURIComponent(next)}`,
  'search a name': (i) =>
    `?words=${['marigold', 'ptarmigan', 'quillback', 'perpetua', 'thimble', 'nettle'][i % 6]}`,
  'search a number': (i) => `?words=${String(1001 + ((i * 37_777) % (jobs - 2000)))}`,
  'search two pieces of words': (i) => `?words=${i.toString(16)}a%20tern`,
  'search what is not there': () => '?words=zeppelin',
  'filter by verdict': (i) => `?verdict=${i % 2 ? 'measure-first' : 'does-not-suit'}`,
  'filter by stage and words': () => '?stage=quoted&words=perpetua',
})

/** Copies of the demo jobs, without most of their documents, which no list reads. */
async function fill(sql: Demo['sql']): Promise<void> {
  await sql`create temporary table original as select * from job`
  for (let from = 1; from <= jobs; from += batch)
    await sql`
      insert into job (workshop_id, document, number, name, customer, craft, stage, due_date, verdict, headline, reason,
        search, updated_at, updated_by, version, judged_version, judged_shop)
      select workshop_id, jsonb_build_object('job', document -> 'job'), (1000 + n)::text, name || ' ' || n, customer, craft,
        (array['enquiry', 'surveyed', 'quoted', 'fitted', 'done'])[1 + n % 5], due_date, verdict, headline, reason,
        (1000 + n)::text || ' ' || search || ' berth ' || md5(n::text), now() - n * interval '1 second', updated_by,
        version, judged_version, judged_shop
      from generate_series(${from}::int, ${Math.min(jobs, from + batch - 1)}::int) n
      join lateral (select * from original order by number offset n % 6 limit 1) j on true`
  await sql`analyze job`
}

/** How often the whole table of jobs was read from one end to the other. */
async function wholeReads(sql: Demo['sql']): Promise<number> {
  // A connection's statements are counted a moment after it becomes idle.
  await new Promise((resolve) => setTimeout(resolve, 3000))
  const [row] = await sql<{ reads: number }[]>`
    select seq_scan::int as reads from pg_stat_user_tables where relname = 'job'`
  return row!.reads
}

/** How fast lists of a million jobs answer; made once for this. */
export async function benchScale({ url, sql }: Demo): Promise<void> {
  const begun = performance.now()
  await sql.reserve().then(async (own) => {
    await fill(own as unknown as Demo['sql'])
    own.release()
  })
  console.log(`${jobs} jobs made in ${Math.round((performance.now() - begun) / 1000)} s`)
  const first = (await (await fetch(`${url}/api/jobs`)).json()) as { readonly next: string }
  const rows = []
  for (const [what, address] of Object.entries(questions(first.next))) {
    const before = await wholeReads(sql)
    const times: number[] = []
    for (let i = 0; i < tries; i++) {
      const asked = performance.now()
      await (await fetch(`${url}/api/jobs${address(i)}`)).json()
      if (i >= 20) times.push(performance.now() - asked)
    }
    times.sort((a, b) => a - b)
    const at = (share: number): string => ms(times[Math.floor(share * (times.length - 1))]!)
    rows.push({
      [`of ${jobs} jobs`]: what,
      median: at(0.5),
      p95: at(0.95),
      longest: at(1),
      'reads of the whole table': (await wholeReads(sql)) - before,
    })
  }
  console.table(rows)
}
