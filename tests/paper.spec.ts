import { stationIds } from '#core/job/fields'
import { expect, test } from './bench-test'
import { newJob, paperOf, typed } from './paper'
import { Thumb, Typist } from './typist'

// A whole survey typed from paper, as an installer does in the evening: every value arrives to the last digit, and
// it costs no more than it may. `npm run bench -- survey` types the workboat’s by both, and from the typical one too.

test('a whole survey is typed with the keys alone @long', async ({ page, app }) => {
  const paper = paperOf('0417-oyster-workboat')
  const effort = await typed(page, app, await newJob(app), paper, (start) =>
    new Typist(page, paper, start).survey(),
  )
  expect(effort.tabs).toBeLessThan(130)
  expect(effort.scrolledPx).toBeLessThan(6000)
})

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })
  test('a whole survey is typed by touch alone @long', async ({ page, app }) => {
    const paper = paperOf('0433-sidecar-outfit')
    const effort = await typed(page, app, await newJob(app), paper, (start) =>
      new Thumb(page, paper, start).survey(),
    )
    expect(effort.taps / stationIds.length).toBeLessThan(12)
    expect(effort.scrolledPx).toBeLessThan(8000)
  })
})
