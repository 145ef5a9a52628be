import type { BrowserContext, Locator, Page } from '@playwright/test'
import { elementAt } from '#core/collections/held'
import { field, openStation, saveState } from '../../tests/bench-test'
import { atPlace, readyForOffline } from '../../tests/offline'
import type { Demo } from '../lib/demo'
import { median, ms } from './demo-jobs'

/** Changes that are made without signal. */
const changes = 200
/** A phone is so many times as slow as this machine. */
const slower = 4
/** Longest a step may take before it counts as failed, ms. */
const patience = 60_000

const phone = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true } as const

/** How often an address is opened: each time in a page of its own, as after the phone was put away. */
const opens = 7

/**
 * How long an address takes without signal on a slow phone until something of it shows, in ms: first, and in the
 * middle.
 */
async function openOften(
  context: BrowserContext,
  address: string,
  shown: (page: Page) => readonly Locator[],
): Promise<string> {
  const took: number[][] = []
  for (let i = 0; i < opens; i++) {
    const page = await context.newPage()
    page.setDefaultTimeout(patience)
    took.push(await openSlowly(page, address, shown(page)))
    await page.close()
  }
  return elementAt(took, 0)
    .map((first, i) => {
      const all = took.map((one) => elementAt(one, i))
      return `${ms(median(all))} (the first time ${ms(first)}, at best ${ms(Math.min(...all))})`
    })
    .join(' and ')
}

async function openSlowly(page: Page, address: string, shown: readonly Locator[]): Promise<number[]> {
  const processor = await page.context().newCDPSession(page)
  await processor.send('Emulation.setCPUThrottlingRate', { rate: slower })
  const begun = performance.now()
  await page.goto(address)
  const took: number[] = []
  for (const at of shown) {
    await at.first().waitFor()
    took.push(performance.now() - begun)
  }
  await processor.send('Emulation.setCPUThrottlingRate', { rate: 1 })
  return took
}

/** Another temperature each time, as it is shown. */
const temperature = (i: number): string => (i % 2 === 0 ? '−9 °C' : '−8 °C')

/**
 * Types other numbers into the open stations, one after another, as somebody who corrects a whole survey.
 * @returns how many fields were changed
 */
async function correctSurvey(page: Page): Promise<number> {
  let changed = 0
  const stations = page.locator('[data-station] h3 button')
  for (let at = 0; at < (await stations.count()); at++) {
    const station = stations.nth(at)
    if ((await station.getAttribute('aria-expanded')) === 'false') await station.click()
    const entries = page.locator('input[data-field]:visible')
    for (let i = 0; i < (await entries.count()); i++) {
      const entry = entries.nth(i)
      const [, number, unit] = /^(\d+(?:\.\d+)?)( .+)$/.exec(await entry.inputValue()) ?? []
      if (number === undefined) continue
      await entry.fill(`${(Number(number) * 1.01).toPrecision(4)}${unit}`)
      await entry.press('Tab')
      changed++
    }
  }
  return changed
}

/**
 * Times of a phone without signal: opening a job there, and, with the signal back, sending many changes until
 * another device shows the last.
 */
export async function benchOffline({ url, browser, job }: Demo): Promise<void> {
  const context = await browser.newContext({ ...phone, serviceWorkers: 'allow' })
  const first = await context.newPage()
  await first.goto(url)
  await readyForOffline(first)
  await first.close()
  const address = `${url}${atPlace(await job('0417'))}`

  await context.setOffline(true)
  const list = await openOften(context, url, (page) => [
    page.getByRole('list', { name: 'Jobs' }).getByRole('listitem'),
  ])
  const opened = await openOften(context, address, (page) => [
    field(page, 'place/coldestC'),
    page.getByTestId('headline'),
  ])
  const page = await context.newPage()
  page.setDefaultTimeout(patience)
  await page.goto(address)
  await field(page, 'place/coldestC').waitFor()
  const corrected = await correctSurvey(page)
  await openStation(page, 'place')
  const coldest = field(page, 'place/coldestC')
  for (let i = corrected; i < changes; i++) {
    await coldest.fill(temperature(i))
    await coldest.press('Tab')
  }
  await saveState(page)
    .getByText(/^Offline/)
    .waitFor()
  const kept = await saveState(page).textContent()

  const laptop = await browser.newPage()
  await laptop.goto(address)
  await field(laptop, 'place/coldestC').waitFor()
  const begun = performance.now()
  await context.setOffline(false)
  const sent = page.locator('[data-testid=save-state][data-state=saved]').waitFor({ timeout: patience })
  const seen = laptop.waitForFunction(
    (last) => document.querySelector<HTMLInputElement>('[data-field="place/coldestC"]')?.value === last,
    temperature(changes - 1),
    { timeout: patience, polling: 20 },
  )
  const since = async (what: Promise<unknown>): Promise<number> => {
    await what
    return performance.now() - begun
  }
  const [sentMs, seenMs] = await Promise.all([since(sent), since(seen)])
  await context.close()
  await laptop.close()
  console.log(
    `Without signal, at a ${slower} times slower processor: the list of jobs shows after ${list}; entries and verdict of a job after ${opened}. ${changes} changes, ${corrected} of them each in a field of its own (${kept?.trim()}), are sent in ${ms(sentMs)}, and another device shows the last after ${ms(seenMs)}`,
  )
}
