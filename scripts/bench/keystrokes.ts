import type { Page } from '@playwright/test'
import type { Demo } from '../lib/demo'
import { demoJobs, median, unknownJob } from './demo-jobs'

const presses = 12
/** Between two keys of someone who types, ms. */
const keyMs = 200

interface Trace {
  readonly traceEvents: readonly {
    readonly name: string
    readonly ph: string
    readonly dur?: number
    readonly pid: number
    readonly tid: number
    readonly args: { readonly name?: string }
  }[]
}

/** The longest task on the main thread of the page, ms. */
function longestTask(trace: Buffer): number {
  const { traceEvents } = JSON.parse(trace.toString()) as Trace
  const mains = new Set(
    traceEvents
      .filter(({ name, args }) => name === 'thread_name' && args.name === 'CrRendererMain')
      .map(({ pid, tid }) => `${pid} ${tid}`),
  )
  const tasks = traceEvents.filter(
    ({ name, ph, pid, tid }) => name === 'RunTask' && ph === 'X' && mains.has(`${pid} ${tid}`),
  )
  return Math.max(...tasks.map(({ dur = 0 }) => dur / 1000))
}

/**
 * Notes when a key goes down, and when the next word of the worker comes after it, through the port it was
 * given.
 */
const listen = (): void => {
  const seen = { pressed: 0, answered: [] as number[] }
  Object.assign(window, { seen })
  document.addEventListener(
    'keydown',
    () => {
      seen.pressed = performance.now()
    },
    true,
  )
  const plain = MessagePort.prototype.addEventListener
  MessagePort.prototype.addEventListener = function (this: MessagePort, ...args: Parameters<typeof plain>) {
    plain.call(this, 'message', () => {
      if (seen.pressed > 0) seen.answered.push(performance.now() - seen.pressed)
      seen.pressed = 0
    })
    plain.apply(this, args)
  } as typeof plain
}

async function keystrokes(
  page: Page,
  trace: { start: () => Promise<void>; stop: () => Promise<Buffer> },
): Promise<{ task: number; verdict: number }> {
  const station = page.locator('[data-station="use"] h3 button')
  if ((await station.getAttribute('aria-expanded')) === 'false') await station.click()
  const input = page.locator('[data-field="use/dailyAh"]')
  await input.fill('1')
  await page.waitForTimeout(1500)
  const press = async (i: number): Promise<void> => {
    await input.press(i % 2 ? 'Backspace' : '4')
    await page.waitForTimeout(keyMs)
  }
  // Verdicts without the tracer, which stops the worker for a while when it begins and ends.
  for (let i = 0; i < presses; i++) await press(i)
  const answered = await page.evaluate(
    () => (window as unknown as { seen: { answered: number[] } }).seen.answered,
  )
  const tasks: number[] = []
  for (let i = 0; i < presses; i++) {
    await trace.start()
    await press(i)
    tasks.push(longestTask(await trace.stop()))
  }
  return { task: median(tasks), verdict: median(answered) }
}

/**
 * Cost of a keystroke on the bench: the longest task of the page's own thread, and the delay of the verdicts.
 */
export async function benchKeystrokes({ url, browser }: Demo): Promise<void> {
  const rows = []
  for (const [name, job] of [
    ...demoJobs,
    ['two sources, all unknown', { ...unknownJob, job: { ...unknownJob.job, number: '0498' } }] as const,
  ]) {
    const stored = (await (
      await fetch(`${url}/api/jobs/import?who=bench`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(job),
      })
    ).json()) as { id: string }
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    await page.addInitScript(listen)
    await page.goto(`${url}/jobs/${stored.id}`)
    await page.getByTestId('headline').waitFor()
    const trace = {
      start: () =>
        browser.startTracing(page, {
          categories: ['toplevel', 'disabled-by-default-devtools.timeline', 'devtools.timeline'],
        }),
      stop: () => browser.stopTracing(),
    }
    const { task, verdict } = await keystrokes(page, trace)
    rows.push({
      keystroke: name,
      'longest task, ms': task.toFixed(1),
      'verdicts after, ms': verdict.toFixed(1),
    })
    await page.close()
  }
  console.table(rows)
}
