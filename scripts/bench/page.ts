import { execFileSync } from 'node:child_process'
import type { JobDocument } from '#core/job/document'
import { planOf } from '#core/solve/plan'
import type { Demo } from '../lib/demo'
import { demoShelf } from '../lib/demo-shelf'
import { manyAnswers } from './answers'

/** How free the page stays while runs and a search go on. */
export async function benchPage(demo: Demo): Promise<void> {
  const { url, browser, job } = demo
  // The page's load from a year: the longest task on its main thread while three systems run, and the memory of its
  // process afterwards.
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
  console.log(
    `Typical year of three systems in the page: longest task while it ran ${task(running)}, drawing what came of it ${task(drawing)}; the page’s process held at most ${Math.round(most)} MB, ${Math.round(heaviest())} MB when done`,
  )

  await benchSearches(demo)
}

/**
 * Searches in the page, its workers and all: the workboat with three like chargers and a larger alternator. With its
 * battery known a sure answer keeps it, and no other is tried; with the capacity of that battery unknown all are.
 */
async function benchSearches(demo: Demo): Promise<void> {
  const { job } = manyAnswers()
  const unknown = { ...job, candidate: { ...job.candidate, ahEach: undefined } } as JobDocument
  console.log(
    `Search for answers in the page, a sure one keeps the battery: ${await searchInPage(demo, job)}`,
  )
  console.log(`Search for answers in the page, every battery tried: ${await searchInPage(demo, unknown)}`)
}

/** A state of a search, and when it began, ms. */
type Moment = [state: string, at: number]
/** The page's state during a search; the first recorded state is that of the search itself. */
interface Seen {
  longest: number
  states: Moment[]
  pressed: number
}

/** How long a second search takes in the page, and how soon a third one stops. */
async function searchInPage({ url, browser }: Demo, job: JobDocument): Promise<string> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  const stored = (await (
    await fetch(`${url}/api/jobs/import?who=bench`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(job),
    })
  ).json()) as { id: string }
  await page.goto(`${url}/jobs/${stored.id}/specify`)
  const solving = page.getByTestId('solve-state')
  const is = (what: string) =>
    solving.and(page.locator(`[data-state="${what}"]`)).waitFor({ timeout: 120_000 })
  await is('done')
  const opened = await page.evaluate(() => performance.now())
  await page.evaluate(() => {
    const seen: Seen = { longest: 0, states: [], pressed: 0 }
    Object.assign(window, { solve: seen })
    new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) seen.longest = Math.max(seen.longest, duration)
    }).observe({ entryTypes: ['longtask'] })
    const stands = document.querySelector('[data-testid="solve-state"]')!
    new MutationObserver(() => {
      seen.states.push([stands.getAttribute('data-state')!, performance.now()])
    }).observe(stands, { attributes: true })
    document.addEventListener(
      'click',
      (event) => {
        if ((event.target as HTMLElement).textContent === 'Stop') seen.pressed = performance.now()
      },
      true,
    )
  })
  const seenOfSearch = () => page.evaluate(() => (window as unknown as { solve: Seen }).solve)
  await page.getByRole('button', { name: 'Search again' }).click()
  await is('searching')
  await is('done')
  const whole = await seenOfSearch()
  await page.getByRole('button', { name: 'Search again' }).click()
  await page.waitForTimeout(300)
  // Pressed from within: the line above it moves as the search goes on.
  await page.evaluate(() => {
    ;[...document.querySelectorAll('button')].find((button) => button.textContent === 'Stop')!.click()
  })
  await is('stopped')
  const stopped = await seenOfSearch()
  const workers = await page.evaluate(() => navigator.hardwareConcurrency)
  await page.close()
  const { keeping, exchanging, count } = planOf(job, {}, demoShelf())
  const [first] = whole.states
  const [judging, done] = whole.states.slice(-2)
  const seconds = (from: Moment, to: Moment): string => ((to[1] - from[1]) / 1000).toFixed(2)
  return `${count} combinations, ${keeping.length} with the battery and ${exchanging.length} with another, ${workers} workers; on opening the page answers after ${(opened / 1000).toFixed(2)} s; again, searched in ${seconds(first!, judging!)} s, the best judged in full ${seconds(judging!, done!)} s later; longest task ${task(stopped.longest)}; a stop took ${Math.round(stopped.states.at(-1)![1] - stopped.pressed)} ms`
}

const task = (length: number): string => (length === 0 ? 'under 50 ms' : `${Math.round(length)} ms`)
