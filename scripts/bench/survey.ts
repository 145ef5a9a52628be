import { stationIds } from '#core/job/fields'
import { newJob, paperOf, typed } from '../../tests/paper'
import { Thumb, Typist, type Effort } from '../../tests/typist'
import type { Demo } from '../lib/demo'

const strokes = ({ keys, tabs, taps }: Effort): number => keys + tabs + taps
const ways = {
  laptop: { surveyor: Typist, viewport: { width: 1280, height: 800 }, hasTouch: false },
  phone: { surveyor: Thumb, viewport: { width: 390, height: 844 }, hasTouch: true },
} as const

/**
 * The effort of typing a whole survey from paper, on the laptop by keys and on the phone by touch, from a blank job
 * and from a template. Fails where a value does not arrive as it was typed.
 */
export async function benchSurvey({ browser, url }: Demo): Promise<void> {
  const rows = []
  const paper = paperOf('0417-oyster-workboat')
  for (const [on, { surveyor: Surveyor, ...device }] of Object.entries(ways)) {
    let blank = 0
    for (const typical of [undefined, 'workboat']) {
      const page = await browser.newPage(device)
      const effort = await typed(page, { url }, await newJob({ url }, typical), paper, (start) =>
        new Surveyor(page, paper, start).survey(),
      )
      await page.close()
      blank ||= strokes(effort)
      rows.push({
        on,
        from: typical ?? 'blank',
        ...effort,
        'taps a station': (effort.taps / stationIds.length).toFixed(1),
        strokes: strokes(effort),
        'of blank': `${Math.round((strokes(effort) / blank) * 100)} %`,
      })
    }
  }
  console.table(rows)
}
