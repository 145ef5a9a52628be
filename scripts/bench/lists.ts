import type { Sql } from 'postgres'
import { writeShelfCsv } from '#core/formats/shelf-csv'
import { ms } from './demo-jobs'

/** How fast lists of many jobs answer, and how long a large table of parts takes. */
export async function benchLists({ url, sql }: { readonly url: string; readonly sql: Sql }): Promise<void> {
  const jobCount = 20_000
  await sql`
    insert into job (workshop_id, document, number, name, customer, craft, stage, due_date, verdict, headline, reason, search, updated_at, updated_by)
    select workshop_id, document, lpad((1000 + n)::text, 5, '0'), name || ' ' || n, customer, craft, (array['enquiry', 'surveyed', 'quoted', 'fitted', 'done'])[1 + n % 5], due_date, verdict, headline, reason,
      lpad((1000 + n)::text, 5, '0') || ' ' || search || ' berth ' || md5(n::text), now() - n * interval '1 minute', updated_by
    from generate_series(1, ${jobCount - 6}) n join lateral (select * from job order by number offset n % 6 limit 1) j on true`
  await sql`analyze job`
  const queries: readonly (readonly [string, (i: number) => string])[] = [
    ['list', () => ''],
    [
      'search a name',
      (i) => `?words=${['marigold', 'ptarmigan', 'quillback', 'perpetua', 'thimble', 'nettle'][i % 6]}`,
    ],
    ['search a number', (i) => `?words=${String(1001 + ((i * 37) % 19_000)).padStart(5, '0')}`],
    ['search two pieces of words', (i) => `?words=${i.toString(16)}a%20tern`],
    ['search what is not there', () => '?words=zeppelin'],
    ['filter by verdict', (i) => `?verdict=${i % 2 ? 'measure-first' : 'does-not-suit'}`],
    ['filter by stage and words', () => '?stage=quoted&words=perpetua'],
  ]
  const answers = []
  for (const [what, query] of queries) {
    const times: number[] = []
    for (let i = 0; i < 220; i++) {
      const begun = performance.now()
      await (await fetch(`${url}/api/jobs${query(i)}`)).json()
      if (i >= 20) times.push(performance.now() - begun)
    }
    times.sort((a, b) => a - b)
    answers.push({ [`of ${jobCount} jobs`]: what, median: ms(times[100]!), p95: ms(times[190]!) })
  }
  console.table(answers)

  const lines = writeShelfCsv(
    'chargers',
    Array.from({ length: 5000 }, (_, i) => ({
      code: `B-${i}`,
      name: `Bulk ${i}`,
      maker: '',
      values: { ratedA: 10 + (i % 50), profile: 'lithium' },
    })),
  ).split('\n')
  for (let k = 0; k < 37; k++) lines[20 + k * 120] = lines[20 + k * 120]!.replace('lithium', 'magic')
  for (const take of ['none', 'good']) {
    const begun = performance.now()
    const answer = (await (
      await fetch(`${url}/api/shelf/chargers/table?who=bench&take=${take}`, {
        method: 'POST',
        body: lines.join('\n'),
      })
    ).json()) as { good: number; bad: number }
    console.log(
      `Shelf table of 5000 rows, ${take === 'none' ? 'read and checked' : 'taken'}: ${answer.good} good, ${answer.bad} bad, ${Math.round(performance.now() - begun)} ms`,
    )
  }
}
