import { describe, expect, it } from 'vitest'
import { wiredJob } from '#core/assessment/wired'
import { labelsCsv } from '#core/formats/labels-csv'
import { asSpecified } from '#core/job/as-specified'
import { metric } from '#core/units/display'
import { writerIn } from '#core/units/format'
import { chosen } from '../../scripts/lib/chosen-workboat'
import { isSizeUnknown } from '#core/wiring/words'
import { wiringLabels } from './labels'

const q = writerIn(metric)
const wired = wiredJob(asSpecified(chosen), {})
const labels = wiringLabels(wired, q)
const cables = wired.network.runs.filter(
  ({ state, areaMm2, isStud }) => state !== 'goes' && areaMm2 !== null && !isStud,
)

describe('the labels of a wiring', () => {
  it('are two for each cable that is there afterwards, with both its ends, size and fuse', () => {
    expect(cables.length).toBeGreaterThan(5)
    for (const run of cables) {
      const [one, other, ...more] = labels.filter(({ number }) => number === run.number)
      expect({ run: run.number, same: one, more }).toEqual({ run: run.number, same: other, more: [] })
      expect(one?.from).not.toBe('')
      expect(one?.to).not.toBe('')
      expect(one?.size).toMatch(isSizeUnknown(run) ? /^$/ : /mm²/)
    }
    expect(labels.some(({ fuse }) => fuse.startsWith('F'))).toBe(true)
  })
  it('are one for each fuse, switch and bar with a number, and none for removed parts', () => {
    const gone = wired.network.posts.flatMap(({ state, fitting }) =>
      state === 'goes' ? [fitting?.number] : [],
    )
    const fittings = labels.filter(({ to }) => to === '')
    expect(fittings.length).toBeGreaterThan(1)
    expect(new Set(fittings.map(({ number }) => number)).size).toBe(fittings.length)
    for (const { number } of fittings) expect(gone).not.toContain(number)
  })
  it('are exported one to a row, and no cell runs as a formula', () => {
    const text = labelsCsv([...labels, { number: '=1', from: '+x', to: '', size: '', fuse: '' }])
    const rows = text.trim().split('\n')
    expect(rows[0]).toBe('number,from,to,size,fuse')
    expect(rows).toHaveLength(labels.length + 2)
    expect(rows.at(-1)).toBe("'=1,'+x,,,")
  })
})
