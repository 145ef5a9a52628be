import type { Demo } from '../lib/demo'
import { ms } from './demo-jobs'

const craftCount = 200
const years = 20
/** Number of entries of a craft. */
const entries = 500
const reminders = 10
const tries = 100

/** 200 craft with 20 years of logbook, each with a fading bank, a warming joint and other readings. */
async function fill(sql: Demo['sql']): Promise<string> {
  await sql`
    insert into craft (workshop_id, customer_id, name, kind, search, updated_by)
    select workshop_id, customer_id, 'Craft ' || n, 'vessel', 'craft ' || n, 'bench'
    from generate_series(1, ${craftCount}::int) n cross join (select workshop_id, customer_id from customer limit 1) as one`
  await sql`
    insert into log_entry (workshop_id, craft_id, at, added_by, kind, quantity, subject, value, expected, source)
    select workshop_id, craft_id, now() - make_interval(days => (${entries}::int - i) * ${365 * years}::int / ${entries}::int), 'bench',
      'reading', (array['capacity', 'jointResistance', 'restingVoltage', 'tailCurrent'])[1 + i % 4], 'House bank',
      case i % 4 when 0 then 220 - 4.0 * i / 25 + random() * 3 when 1 then 1 + i / 1000.0 else 12.7 + random() / 10 end,
      case i % 4 when 0 then 220 when 1 then 1 end, 'typed'
    from craft cross join generate_series(1, ${entries}::int) i where name like 'Craft %'`
  await sql`
    insert into reminder (workshop_id, craft_id, kind, due, words, created_by)
    select workshop_id, craft_id, 'hand', current_date + i * 20 - 40, 'Look at it', 'bench'
    from craft cross join generate_series(1, ${reminders}::int) i where name like 'Craft %'`
  await sql`analyze`
  const [one] = await sql<{ id: string }[]>`select craft_id as id from craft where name = 'Craft 100'`
  return one?.id ?? ''
}

/** How fast craft, logbooks and reminders of a shop of twenty years answer, and its page with its charts opens. */
export async function benchCraft({ url, sql, browser }: Demo): Promise<void> {
  const craft = await fill(sql)
  const begun = performance.now()
  await (await fetch(`${url}/api/today`)).json()
  const rows: object[] = [
    {
      'of 100,000 entries': 'start page, nothing worked out yet',
      median: ms(performance.now() - begun),
      p95: '',
    },
  ]
  for (const [what, path] of [
    ['list of craft', '/api/craft?words=craft'],
    ['craft', `/api/craft/${craft}`],
    ['logbook', `/api/craft/${craft}/log`],
    ['reminders of the shop', '/api/reminders'],
    ['start page', '/api/today'],
    ['what the shop has learnt', '/api/learnt'],
  ] as const) {
    const times: number[] = []
    for (let i = 0; i < tries; i++) {
      const asked = performance.now()
      await (await fetch(url + path)).json()
      times.push(performance.now() - asked)
    }
    times.sort((a, b) => a - b)
    rows.push({
      'of 100,000 entries': what,
      median: ms(times[tries / 2] ?? 0),
      p95: ms(times[tries * 0.95] ?? 0),
    })
  }
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await page.goto(`${url}/craft`)
  await page.getByRole('link', { name: 'Craft 100', exact: true }).waitFor()
  const opened: number[] = []
  for (let i = 0; i < 10; i++) {
    const pressed = performance.now()
    await page.getByRole('link', { name: 'Craft 100', exact: true }).click()
    await page.locator('canvas').nth(1).waitFor()
    opened.push(performance.now() - pressed)
    await page.goBack()
    await page.getByRole('link', { name: 'Craft 100', exact: true }).waitFor()
  }
  opened.sort((a, b) => a - b)
  rows.push({
    'of 100,000 entries': 'page of a craft, from the press to its charts',
    median: ms(opened[5] ?? 0),
    p95: ms(opened[9] ?? 0),
  })
  console.table(rows)
}
