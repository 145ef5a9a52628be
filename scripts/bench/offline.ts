import type { Page } from '@playwright/test'
import { field, saveState } from '../../tests/bench-test'
import { atPlace, readyForOffline } from '../../tests/offline'
import type { Demo } from '../lib/demo'
import { ms } from './demo-jobs'

/** Changes that are made without signal. */
const changes = 200
/** A phone is so many times as slow as this machine. */
const slower = 4
/** Longest a step may take before it counts as failed, ms. */
const patience = 60_000

const phone = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true } as const

/** How long a job takes to open without signal on a slow phone, in ms. */
async function openSlowly(page: Page, address: string): Promise<number> {
  const processor = await page.context().newCDPSession(page)
  await processor.send('Emulation.setCPUThrottlingRate', { rate: slower })
  const begun = performance.now()
  await page.goto(address)
  await page.getByTestId('headline').waitFor()
  const took = performance.now() - begun
  await processor.send('Emulation.setCPUThrottlingRate', { rate: 1 })
  return took
}

/** Another temperature each time, as it is shown. */
const temperature = (i: number): string => (i % 2 === 0 ? '−9 °C' : '−8 °C')

/**
 * What a phone without signal costs: opening a job there, and, once the signal is back, sending many changes until
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
  const page = await context.newPage()
  page.setDefaultTimeout(patience)
  const opened = await openSlowly(page, address)
  const coldest = field(page, 'place/coldestC')
  for (let i = 0; i < changes; i++) {
    await coldest.fill(temperature(i))
    await coldest.press('Tab')
  }
  const kept = await saveState(page).textContent()

  const laptop = await browser.newPage()
  await laptop.goto(address)
  const shown = laptop.locator('[data-field="place/coldestC"]')
  await shown.waitFor()
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
    `Without signal: a job opens in ${ms(opened)} at a ${slower} times slower processor. ${changes} changes (${kept?.trim()}) are sent in ${ms(sentMs)}, and another device shows the last after ${ms(seenMs)}`,
  )
}
