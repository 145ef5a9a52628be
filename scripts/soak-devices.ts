// npm run soak:devices [-- MINUTES [SEED]]: three phones and two laptops change twenty jobs, while connections are
// lost and pages, the server and the database are killed at random. In the end every change of every device must be
// there, once, and none may have replaced a value that its person could not see.
import { chromium, type Browser, type BrowserContext, type Page } from '@playwright/test'
import { setTimeout as pause } from 'node:timers/promises'
import type { HistoryEntry } from '../server/repositories/job-history'
import type { JobPage } from '../server/repositories/job-list'
import type { StoredJob } from '../server/repositories/jobs'
import { chromiumArgs } from '../playwright.config'
import { Application } from './lib/application'
import { chanceOf } from './lib/hostile'

const [minutes = 10, seed = Date.now() % 1_000_000] = process.argv.slice(2).map(Number)
const chance = chanceOf(seed)
const jobCount = 20
const paths = ['place/coldestC', 'place/hottestC'] as const
type Path = (typeof paths)[number]
const names = ['Phone 1', 'Phone 2', 'Phone 3', 'Laptop 1', 'Laptop 2'] as const

/** Longest wait for something that a page should show, ms: where it does not, the page is opened again. */
const patienceMs = 20_000

/** Steps of a device: mostly edits. */
const shareOffline = 0.15
const shareOnline = 0.3
const shareKill = 0.1

interface Typed {
  readonly device: string
  readonly job: string
  readonly path: Path
  readonly value: number
  readonly at: number
}
interface Choice {
  readonly device: string
  readonly job: string
  readonly at: number
  readonly isMine: boolean
}
const typed: Typed[] = []
const choices: Choice[] = []
const counts: Record<string, number> = {}
const count = (what: string): number => (counts[what] = (counts[what] ?? 0) + 1)
let made = 0
/** No two edits type the same value. */
const newValue = (path: Path): number => (path === paths[0] ? -40 : 20) + (made++ % 3500) / 100

/** One browser of one person. */
class Device {
  private page: Page | null = null
  private isOffline = false

  private constructor(
    readonly name: string,
    private readonly url: string,
    private readonly context: BrowserContext,
  ) {}

  static async begin(browser: Browser, url: string, name: string): Promise<Device> {
    const isPhone = name.startsWith('Phone')
    const context = await browser.newContext({
      viewport: isPhone ? { width: 390, height: 844 } : { width: 1280, height: 800 },
      hasTouch: isPhone,
      isMobile: isPhone,
    })
    context.setDefaultTimeout(patienceMs)
    await context.addInitScript((device) => {
      localStorage.setItem('jovial-anchor.device', device)
    }, name)
    const device = new Device(name, url, context)
    const page = await device.opened()
    await page.goto(url)
    await page.evaluate(async () => {
      await navigator.serviceWorker.ready
    })
    return device
  }

  private async opened(): Promise<Page> {
    this.page ??= await this.context.newPage()
    return this.page
  }

  /** Chooses wherever this device and another one changed the same value. */
  private async choose(page: Page, job: string): Promise<void> {
    const offered = page.getByRole('button', { name: 'Choose value' })
    const dialog = page.getByRole('dialog')
    for (let tries = 0; tries < 5 && ((await dialog.isVisible()) || (await offered.isVisible())); tries++) {
      if (!(await dialog.isVisible())) await offered.click()
      const isMine = chance() < 0.5
      await dialog.getByRole('button', { name: isMine ? 'Keep all of yours' : 'Keep all of theirs' }).click()
      await dialog.getByRole('button', { name: 'Save choices' }).click()
      choices.push({ device: this.name, job, at: Date.now(), isMine })
      count('choices')
      await pause(300)
    }
  }

  private async at(job: string): Promise<Page> {
    const page = await this.opened()
    const address = `${this.url}/jobs/${job}`
    if (!page.url().startsWith(address)) await page.goto(`${address}?column=walk&station=place`)
    return page
  }

  private async edit(job: string): Promise<void> {
    const page = await this.at(job)
    await this.choose(page, job)
    const path = paths[Math.floor(chance() * paths.length)]!
    const value = newValue(path)
    await page.locator(`[data-field="${path}"]`).fill(String(value))
    // The page may have opened in between: that view counts as seen.
    typed.push({ device: this.name, job, path, value, at: Date.now() })
    count(this.isOffline ? 'edits offline' : 'edits')
  }

  /** One step of a person with this device. */
  async step(jobs: readonly string[]): Promise<void> {
    try {
      if (chance() < (this.isOffline ? shareOnline : shareOffline)) {
        this.isOffline = !this.isOffline
        await this.context.setOffline(this.isOffline)
        count('changes of connection')
      }
      if (chance() < shareKill) {
        await this.page?.close()
        this.page = null
        count('pages killed')
      }
      // Few jobs at a time, so that devices meet.
      const near = Math.floor(Date.now() / 30_000) % jobs.length
      await this.edit(jobs[(near + Math.floor(chance() * 3)) % jobs.length]!)
      await pause(chance() * 1500)
    } catch {
      // The page shows nothing while its server is killed: it is opened again.
      count('pages opened again')
      await this.page?.close().catch(() => undefined)
      this.page = null
      await pause(500)
    }
  }

  /** Jobs with changes that are not sent: the key of each is "jovial-anchor.draft.JOB.WINDOW". */
  private async unsent(page: Page): Promise<readonly string[]> {
    const keys = await page.evaluate(() => Object.keys(localStorage))
    return [...new Set(keys.filter((key) => key.includes('.draft.')).map((key) => key.split('.')[2]!))]
  }

  /** Online, until nothing waits on this device any more. */
  async settle(): Promise<boolean> {
    await this.context.setOffline(false)
    this.isOffline = false
    for (let tries = 0; tries < 10; tries++) {
      try {
        const page = await this.opened()
        await page.goto(this.url)
        await page.getByRole('list', { name: 'Jobs' }).waitFor()
        await pause(3000)
        if ((await page.getByTestId('waiting').count()) === 0) return true
        for (const job of await this.unsent(page)) {
          await this.at(job)
          await page.getByTestId('save-state').waitFor()
          await this.choose(page, job)
        }
      } catch {
        await this.page?.close().catch(() => undefined)
        this.page = null
      }
    }
    return false
  }
}

const valueOf = (known: unknown): number | undefined => (known as { value?: number } | undefined)?.value

/** The errors of a job, in words. */
function faultsOf(
  job: string,
  history: readonly HistoryEntry[],
): { lost: string[]; doubled: string[]; silent: string[] } {
  const writes = history.flatMap(({ who, at, changes }) =>
    (changes ?? []).map(({ path, before, after }) => ({
      who,
      at: new Date(at).getTime(),
      path,
      before: valueOf(before),
      after: valueOf(after),
    })),
  )
  const here = typed.filter((one) => one.job === job)
  const lost: string[] = []
  for (const device of names)
    for (const path of paths) {
      const last = here.findLast((one) => one.device === device && one.path === path)
      if (!last) continue
      const isThere = writes.some((write) => write.path === path && write.after === last.value)
      const gaveUp = choices.some(
        (one) => one.device === device && one.job === job && !one.isMine && one.at >= last.at,
      )
      if (!isThere && !gaveUp) lost.push(`${device} ${path} ${last.value}`)
    }
  const doubled = here
    .filter(
      ({ path, value }) => writes.filter((write) => write.path === path && write.after === value).length > 1,
    )
    .map(({ device, path, value }) => `${device} ${path} ${value}`)
  const silent = writes.flatMap((write) => {
    const own = here.find((one) => one.value === write.after && one.path === write.path)
    const other = writes.find((one) => one.path === write.path && one.after === write.before)
    if (!own || !other || other.who === write.who || own.at >= other.at) return []
    const chose = choices.some(
      (one) => one.device === write.who && one.job === job && one.at >= other.at && one.at <= write.at + 5000,
    )
    return chose ? [] : [`${write.who} ${write.path} ${write.after} over ${write.before} of ${other.who}`]
  })
  return { lost, doubled, silent }
}

const application = await Application.begin('soak-devices')
await application.insist('/api/shop')
const { jobs: demo } = await application.insist<JobPage>('/api/jobs')
const jobs: string[] = []
for (let i = 0; i < jobCount; i++) {
  const copy = await application.ask<StoredJob>('POST', '/api/jobs', {
    who: 'soak',
    copyOf: demo[i % demo.length]!.id,
  })
  jobs.push(copy!.data.id)
}
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: chromiumArgs })
const devices = await Promise.all(names.map((name) => Device.begin(browser, application.url, name)))
const until = Date.now() + minutes * 60_000

async function killing(): Promise<void> {
  while (Date.now() < until) {
    await pause(10_000 + chance() * 20_000)
    if (chance() < 0.6) {
      application.killServer()
      count('servers killed')
    } else {
      application.killDatabase()
      count('databases killed')
    }
    application.startIfDown()
  }
}
await Promise.all([
  killing(),
  ...devices.map(async (device) => {
    while (Date.now() < until) await device.step(jobs)
  }),
])
await application.insist('/api/shop')
const settled = await Promise.all(devices.map((device) => device.settle()))
const faults = await Promise.all(
  jobs.map(async (job) => faultsOf(job, (await application.historyOf(job)).toReversed())),
)
const all = (kind: 'lost' | 'doubled' | 'silent'): string[] => faults.flatMap((one) => one[kind])
console.log(
  `${typed.length} edits on ${jobCount} jobs by ${names.length} devices in ${minutes} min (${Object.entries(
    counts,
  )
    .map(([what, n]) => `${n} ${what}`)
    .join(', ')}), seed ${seed}: ${all('lost').length} lost, ${all('doubled').length} doubled, ` +
    `${all('silent').length} silent overwrites, ${settled.filter((done) => !done).length} devices with changes left`,
)
for (const kind of ['lost', 'doubled', 'silent'] as const)
  for (const words of all(kind)) console.error(`${kind}: ${words}`)
await browser.close()
await application.end()
process.exit(
  all('lost').length + all('doubled').length + all('silent').length === 0 && settled.every(Boolean) ? 0 : 1,
)
