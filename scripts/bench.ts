import { planOf } from '#core/solve/plan'
// npm run bench: how long the core takes, how well steps are found, how fast lists answer, how large the page is and how free it stays.
// npm run bench -- PART…: of core, runs, steps, lists, page, size, those alone.
import { execFileSync } from 'node:child_process'
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { Bench } from 'tinybench'
import { assess, resultsAhead } from '#core/assessment/assess'
import { compareCandidates } from '#core/compare/candidates'
import { drawLanes } from '#core/compare/instruments'
import { readJobFile, writeJobFile } from '#core/formats/job-file'
import { writeShelfCsv, readShelfCsv } from '#core/formats/shelf-csv'
import { emptyJob, type JobDocument, withNewPart } from '#core/job/document'
import { auditLoads } from '#core/loads/audit'
import { StepDetector } from '#core/loads/detect'
import { judgeSteps } from '#core/loads/judge'
import { chanceVehicle } from '#core/loads/stand-in'
import { shelfKindIds, type ShelfPart } from '#core/shelf/kinds'
import { Evaluator } from '#core/solve/evaluate'
import { search } from '#core/solve/front'
import { factsOf } from '#core/system/system'
import { plantOf } from '#core/simulation/plant-of-job'
import { inputsOfJob } from '#core/simulation/inputs'
import { runNow } from '#core/simulation/runs'
import { parseQuantity } from '#core/units/parse'
import { readEpw, weatherOf } from '#core/weather/epw'
import { withDemo } from './lib/demo'

const asked = process.argv.slice(2)
const wanted = (part: string): boolean => asked.length === 0 || asked.includes(part)

const folder = new URL('../demo/jobs/', import.meta.url)
const jobs = readdirSync(folder).map((name) => [name.replace('.json', ''), JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as JobDocument] as const)
const unknown = withNewPart(withNewPart(emptyJob('1'), 'chargers').job, 'alternators').job
const first = jobs[0]![1]
const trailer = jobs.find(([name]) => name.startsWith('0430'))![1]
const ms = (value: number): string => (value < 0.1 ? `${(value * 1000).toFixed(2)} µs` : `${value.toFixed(3)} ms`)

if (wanted('core')) {
  const file = writeJobFile(first)
  const assessment = assess(first)
  const bench = new Bench({ time: 1500, warmupTime: 500 })
  for (const [name, job] of jobs) bench.add(`assess ${name}, at once`, () => { assess(job, {}, { quick: true }) })
  for (const [name, job] of jobs) bench.add(`look ahead ${name}: the checks that take a run`, () => { resultsAhead(factsOf(job)) })
  bench
    .add('assess a job of two sources, all unknown', () => { assess(unknown, {}, { quick: true }) })
    .add('compare four candidates', () => { compareCandidates(trailer) })
    .add('audit the loads', () => { auditLoads(first) })
    .add('draw the lanes of the first job', () => { drawLanes(first, {}, assessment) })
    .add('read and check a job file', () => { readJobFile(file) })
    .add('read a quantity', () => { parseQuantity('14,4 V', 'V') })
  await bench.run()

  console.table(bench.tasks.map(({ name, result }) => result.state === 'completed'
    ? { what: name, median: ms(result.latency.p50), 'p99': ms(result.latency.p99), runs: result.latency.samplesCount }
    : { what: name, median: result.state, p99: '', runs: 0 }))
}

if (wanted('runs')) {
  const epw = readEpw(readFileSync(new URL('../public/weather/port-larkspur.epw', import.meta.url), 'utf8'))
  const weather = epw.ok ? weatherOf(epw.file, 10) : null
  const runs = []
  for (const [what, number, run] of [['typical year, three sources and two batteries', '0427', 'typical-year'], ['typical year, alternator through a diode isolator', '0417', 'typical-year'], ['driving day', '0417', 'driving-day'], ['lay-up of half a year', '0417', 'lay-up']] as const) {
    const job = jobs.find(([name]) => name.startsWith(number))![1]
    const plant = plantOf(job, {}, 'new')
    const times: number[] = []
    for (let i = 0; i < 4; i++) {
      const begun = performance.now()
      runNow(run, plant, inputsOfJob(job, run), run === 'typical-year' ? weather : null)
      times.push(performance.now() - begun)
    }
    runs.push({ run: what, first: ms(times[0]!), best: ms(Math.min(...times)) })
  }
  console.table(runs)
}

if (wanted('steps')) {
  const streams = 200
  const found = { there: 0, found: 0, reported: 0, wrong: 0 }
  for (let seed = 1; seed <= streams; seed++) {
    const { readings, truth } = chanceVehicle(seed, { noiseA: 0.15 })
    const detector = new StepDetector()
    const judged = judgeSteps(readings.flatMap((reading) => [...detector.push(reading)]), truth)
    for (const key of Object.keys(found) as (keyof typeof found)[]) found[key] += judged[key]
  }
  const percent = (share: number): string => `${(share * 100).toFixed(2)} %`
  console.log(`Steps of 0.5 A or more in ${streams} streams of 20 min, noise 0.15 A, cycling fridge: ${found.found} of ${found.there} found (${percent(found.found / found.there)}), ${found.wrong} of ${found.reported} reported wrongly (${percent(found.wrong / found.reported)})`)
}

if (wanted('lists') || wanted('page')) await withDemo(async ({ url, sql, browser, job }) => {
  if (wanted('lists')) {
    const jobCount = 20_000
    await sql`
      insert into job (workshop_id, document, number, name, customer, craft, stage, due_date, verdict, headline, reason, search, updated_at, updated_by)
      select workshop_id, document, lpad((1000 + n)::text, 5, '0'), name || ' ' || n, customer, craft, (array['enquiry', 'surveyed', 'quoted', 'fitted', 'done'])[1 + n % 5], due_date, verdict, headline, reason,
        lpad((1000 + n)::text, 5, '0') || ' ' || search || ' berth ' || md5(n::text), now() - n * interval '1 minute', updated_by
      from generate_series(1, ${jobCount - 6}) n join lateral (select * from job order by number offset n % 6 limit 1) j on true`
    await sql`analyze job`
    const queries: readonly (readonly [string, (i: number) => string])[] = [
      ['list', () => ''], ['search a name', (i) => `?words=${['marigold', 'ptarmigan', 'quillback', 'perpetua', 'thimble', 'nettle'][i % 6]}`], ['search a number', (i) => `?words=${String(1001 + ((i * 37) % 19_000)).padStart(5, '0')}`],
      ['search two pieces of words', (i) => `?words=${i.toString(16)}a%20tern`], ['search what is not there', () => '?words=zeppelin'], ['filter by verdict', (i) => `?verdict=${i % 2 ? 'measure-first' : 'does-not-suit'}`], ['filter by stage and words', () => '?stage=quoted&words=perpetua'],
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

    const lines = writeShelfCsv('chargers', Array.from({ length: 5000 }, (_, i) => ({ code: `B-${i}`, name: `Bulk ${i}`, maker: '', values: { ratedA: 10 + (i % 50), profile: 'lithium' } }))).split('\n')
    for (let k = 0; k < 37; k++) lines[20 + k * 120] = lines[20 + k * 120]!.replace('lithium', 'magic')
    for (const take of ['none', 'good']) {
      const begun = performance.now()
      const answer = await (await fetch(`${url}/api/shelf/chargers/table?who=bench&take=${take}`, { method: 'POST', body: lines.join('\n') })).json() as { good: number; bad: number }
      console.log(`Shelf table of 5000 rows, ${take === 'none' ? 'read and checked' : 'taken'}: ${answer.good} good, ${answer.bad} bad, ${Math.round(performance.now() - begun)} ms`)
    }
  }

  if (wanted('page')) {
    // What a year does to the page: the longest task on its main thread while three systems run, and what its process holds afterwards.
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    await page.goto(`${url}${await job('0417')}/run`)
    const state = page.getByTestId('run-state')
    const stands = (is: string) => state.and(page.locator(`[data-state="${is}"]`)).waitFor({ timeout: 120_000 })
    await stands('done')
    await page.getByLabel(/DC-DC/).check()
    await page.getByLabel(/^Duty-cycling relay/).check()
    await page.getByText(/^Driving day: .* against .* against /).waitFor()
  await page.waitForTimeout(1000)
  await page.getByLabel('Typical year').check()
    await stands('running')
    await page.evaluate(() => {
      const tasks: { from: number; to: number }[] = []
      const seen = { tasks, done: 0 }
      Object.assign(window, { seen })
      new PerformanceObserver((list) => { for (const { startTime, duration } of list.getEntries()) tasks.push({ from: startTime, to: startTime + duration }) }).observe({ entryTypes: ['longtask'] })
      const stands = document.querySelector('[data-testid="run-state"]')!
      new MutationObserver(() => { if (stands.getAttribute('data-state') === 'done') seen.done ||= performance.now() }).observe(stands, { attributes: true })
    })
    const heaviest = (): number => Math.max(...execFileSync('ps', ['-eo', 'rss,args'], { encoding: 'utf8' }).split('\n').filter((line) => line.includes('--type=renderer') && line.includes('chrom')).map((line) => Number.parseInt(line, 10) / 1024))
    let most = 0
    for (const last = Date.now() + 120_000; Date.now() < last && await state.getAttribute('data-state') === 'running';) {
      most = Math.max(most, heaviest())
      await page.waitForTimeout(100)
    }
    await page.waitForTimeout(1000)
    const [running = 0, drawing = 0] = await page.evaluate(() => {
      const { tasks, done } = (window as unknown as { seen: { tasks: { from: number; to: number }[]; done: number } }).seen
      // The task that takes the results over ends with the state done, to within a few milliseconds.
    return [tasks.filter(({ to }) => to < done - 5), tasks.filter(({ to }) => to >= done - 5)].map((list) => Math.max(0, ...list.map(({ from, to }) => to - from)))
    })
    const task = (length: number): string => (length === 0 ? 'under 50 ms' : `${Math.round(length)} ms`)
    console.log(`Typical year of three systems in the page: longest task while it ran ${task(running)}, drawing what came of it ${task(drawing)}; the page’s process held at most ${Math.round(most)} MB, ${Math.round(heaviest())} MB when done`)

    // A search in the page, its workers and all: the workboat with three like chargers and a larger alternator has 500 combinations that settle it.
    const shelf: ShelfPart[] = shelfKindIds.flatMap((kind) => readShelfCsv(readFileSync(new URL(`../demo/shelf/${kind}.csv`, import.meta.url), 'utf8'), kind).parts.map(({ code, name, maker, values }) => ({ kind, version: 1, code, name, maker, values })))
    const like = first.chargers['charger-1']!
    const many: JobDocument = { ...first, job: { ...first.job, number: '0499' }, alternators: { 'alternator-1': { ...first.alternators['alternator-1']!, ratedA: { value: 200, how: 'measured' } } }, chargers: { 'charger-1': like, 'charger-2': { ...like, name: 'Second charger' }, 'charger-3': { ...like, name: 'Third charger' } } }
    const plan = planOf(many, {}, shelf)
    const settling = [...search(new Evaluator(plan))].filter(({ short }) => short === 0).length
    const stored = await (await fetch(`${url}/api/jobs/import?who=bench`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(many) })).json() as { id: string }
    await page.goto(`${url}/jobs/${stored.id}/specify`)
    const solving = page.getByTestId('solve-state')
    const is = (what: string) => solving.and(page.locator(`[data-state="${what}"]`)).waitFor({ timeout: 120_000 })
    await is('done')
    await page.evaluate(() => {
      const seen = { longest: 0, at: {} as Record<string, number>, pressed: 0 }
      Object.assign(window, { solve: seen })
      new PerformanceObserver((list) => { for (const { duration } of list.getEntries()) seen.longest = Math.max(seen.longest, duration) }).observe({ entryTypes: ['longtask'] })
      const stands = document.querySelector('[data-testid="solve-state"]')!
      new MutationObserver(() => { seen.at[stands.getAttribute('data-state')!] = performance.now() }).observe(stands, { attributes: true })
      document.addEventListener('click', (event) => { if ((event.target as HTMLElement).textContent === 'Stop') seen.pressed = performance.now() }, true)
    })
    interface Seen { readonly longest: number; readonly at: Readonly<Record<string, number>>; readonly pressed: number }
    const seenOfSearch = () => page.evaluate(() => (window as unknown as { solve: Seen }).solve)
    await page.getByRole('button', { name: 'Search again' }).click()
    await is('searching')
    await is('done')
    const whole = await seenOfSearch()
    await page.getByRole('button', { name: 'Search again' }).click()
    await page.waitForTimeout(1000)
    // Pressed from within: the line above it moves as the search goes on.
    await page.evaluate(() => { [...document.querySelectorAll('button')].find((button) => button.textContent === 'Stop')!.click() })
    await is('stopped')
    const stopped = await seenOfSearch()
    const workers = await page.evaluate(() => navigator.hardwareConcurrency)
    console.log(`Search for answers in the page, ${workers} workers: ${plan.count} combinations judged and the ${settling} that settle the job run for 72 h each in ${((whole.at.judging! - whole.at.searching!) / 1000).toFixed(2)} s, the best judged in full ${((whole.at.done! - whole.at.judging!) / 1000).toFixed(2)} s later; longest task ${task(stopped.longest)}; a stop took ${Math.round(stopped.at.stopped! - stopped.pressed)} ms`)
  }

})

if (wanted('size')) {
  const scripts = new URL('../.output/public/_nuxt/', import.meta.url)
  if (existsSync(scripts)) {
    const sizes = readdirSync(scripts).filter((name) => name.endsWith('.js.gz')).map((name) => readFileSync(new URL(name, scripts)).length)
    console.log(`All JavaScript of the application, gzip: ${Math.round(sizes.reduce((a, b) => a + b, 0) / 1000)} kB in ${sizes.length} files`)
  }
}
