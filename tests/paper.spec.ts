import { stationIds } from '#core/job/fields'
import { expect, test } from './bench-test'
import { newJob, paper, typed } from './paper'
import { Thumb, Typist } from './typist'

// A whole survey typed from paper, as an installer does in the evening: every value arrives to the last digit, and
// it costs no more than it may. `npm run bench -- survey` types it from the typical workboat too.

test('a whole survey is typed with the keys alone, at half the processor’s speed', async ({ page, app }) => {
  test.setTimeout(240_000)
  const browser = await page.context().newCDPSession(page)
  const effort = await typed(page, app, await newJob(app), async (start) => {
    await browser.send('Emulation.setCPUThrottlingRate', { rate: 2 })
    const spent = await new Typist(page, paper, start).survey()
    await browser.send('Emulation.setCPUThrottlingRate', { rate: 1 })
    return spent
  })
  expect(effort.tabs).toBeLessThan(130)
  expect(effort.scrolledPx).toBeLessThan(6000)
})

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })
  test('a whole survey is typed by touch alone', async ({ page, app }) => {
    test.setTimeout(240_000)
    const effort = await typed(page, app, await newJob(app), (start) =>
      new Thumb(page, paper, start).survey(),
    )
    expect(effort.taps / stationIds.length).toBeLessThan(12)
    expect(effort.scrolledPx).toBeLessThan(12_000)
  })
})
