import { execFileSync } from 'node:child_process'
import { Evaluator } from '#core/solve/evaluate'
import { search } from '#core/solve/front'
import type { Demo } from '../lib/demo'
import { manyAnswers } from './answers'

/** How free the page stays while runs and a search go on. */
export async function benchPage({ url, browser, job }: Demo): Promise<void> {
  // What a year does to the page: the longest task on its main thread while three systems run, and what its
  // process holds afterwards.
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
    new PerformanceObserver((list) => {
      for (const { startTime, duration } of list.getEntries())
        tasks.push({ from: startTime, to: startTime + duration })
    }).observe({ entryTypes: ['longtask'] })
    const stands = document.querySelector('[data-testid="run-state"]')!
    new MutationObserver(() => {
      if (stands.getAttribute('data-state') === 'done') seen.done ||= performance.now()
    }).observe(stands, { attributes: true })
  })
  const heaviest = (): number =>
    Math.max(
      ...execFileSync('ps', ['-eo', 'rss,args'], { encoding: 'utf8' })
        .split('\n')
        .filter((line) => line.includes('--type=renderer') && line.includes('chrom'))
        .map((line) => Number.parseInt(line, 10) / 1024),
    )
  let most = 0
  for (
    const last = Date.now() + 120_000;
    Date.now() < last && (await state.getAttribute('data-state')) === 'running';
  ) {
    most = Math.max(most, heaviest())
    await page.waitForTimeout(100)
  }
  await page.waitForTimeout(1000)
  const [running = 0, drawing = 0] = await page.evaluate(() => {
    const { tasks, done } = (
      window as unknown as { seen: { tasks: { from: number; to: number }[]; done: number } }
    ).seen
    // The task that takes the results over ends with the state done, to within a few milliseconds.
    return [tasks.filter(({ to }) => to < done - 5), tasks.filter(({ to }) => to >= done - 5)].map((list) =>
      Math.max(0, ...list.map(({ from, to }) => to - from)),
    )
  })
  const task = (length: number): string => (length === 0 ? 'under 50 ms' : `${Math.round(length)} ms`)
  console.log(
    `Typical year of three systems in the page: longest task while it ran ${task(running)}, drawing what came of it ${task(drawing)}; the page’s process held at most ${Math.round(most)} MB, ${Math.round(heaviest())} MB when done`,
  )

  // A search in the page, its workers and all: the workboat with three like chargers and a larger alternator
  // has 500 combinations that settle it.
  const { job: many, plan } = manyAnswers()
  const settling = [...search(new Evaluator(plan))].filter(({ short }) => short === 0).length
  const stored = (await (
    await fetch(`${url}/api/jobs/import?who=bench`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(many),
    })
  ).json()) as { id: string }
  await page.goto(`${url}/jobs/${stored.id}/specify`)
  const solving = page.getByTestId('solve-state')
  const is = (what: string) =>
    solving.and(page.locator(`[data-state="${what}"]`)).waitFor({ timeout: 120_000 })
  await is('done')
  await page.evaluate(() => {
    const seen = { longest: 0, at: {} as Record<string, number>, pressed: 0 }
    Object.assign(window, { solve: seen })
    new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) seen.longest = Math.max(seen.longest, duration)
    }).observe({ entryTypes: ['longtask'] })
    const stands = document.querySelector('[data-testid="solve-state"]')!
    new MutationObserver(() => {
      seen.at[stands.getAttribute('data-state')!] = performance.now()
    }).observe(stands, { attributes: true })
    document.addEventListener(
      'click',
      (event) => {
        if ((event.target as HTMLElement).textContent === 'Stop') seen.pressed = performance.now()
      },
      true,
    )
  })
  interface Seen {
    readonly longest: number
    readonly at: Readonly<Record<string, number>>
    readonly pressed: number
  }
  const seenOfSearch = () => page.evaluate(() => (window as unknown as { solve: Seen }).solve)
  await page.getByRole('button', { name: 'Search again' }).click()
  await is('searching')
  await is('done')
  const whole = await seenOfSearch()
  await page.getByRole('button', { name: 'Search again' }).click()
  await page.waitForTimeout(1000)
  // Pressed from within: the line above it moves as the search goes on.
  await page.evaluate(() => {
    ;[...document.querySelectorAll('button')].find((button) => button.textContent === 'Stop')!.click()
  })
  await is('stopped')
  const stopped = await seenOfSearch()
  const workers = await page.evaluate(() => navigator.hardwareConcurrency)
  console.log(
    `Search for answers in the page, ${workers} workers: ${plan.count} combinations judged and the ${settling} that settle the job run for 72 h each in ${((whole.at.judging! - whole.at.searching!) / 1000).toFixed(2)} s, the best judged in full ${((whole.at.done! - whole.at.judging!) / 1000).toFixed(2)} s later; longest task ${task(stopped.longest)}; a stop took ${Math.round(stopped.at.stopped! - stopped.pressed)} ms`,
  )
}
