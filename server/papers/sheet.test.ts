import { expect, it } from 'vitest'
import type { Shape } from '#core/drawing/shape'
import { drawingRoomPt, sheetFor } from './sheet'

const drawing = (width: number, height: number, more: object = { 'font-size': 12 }): Shape => ({
  tag: 'svg',
  attributes: { width, height, ...more },
  children: [],
})
const of = (one: Shape) => [{ heading: 'Drawing', blocks: [{ kind: 'drawing' as const, drawing: one }] }]

it.each([
  ['a small drawing', drawing(500, 500), 'A4', 'Letter'],
  // 12 pt of 539 ÷ 900 are 7.2 pt on A4 and 7.4 pt on Letter.
  ['a wide drawing at 7.2 pt', drawing(900, 500), 'A4', 'Letter'],
  ['a wide drawing at 6.2 pt', drawing(1050, 500), 'A3', 'Tabloid'],
  // 12 pt of 663 ÷ 1100 are 7.2 pt on A4; Letter is shorter: 613 ÷ 1100 give 6.7 pt.
  ['a tall drawing', drawing(500, 1100), 'A4', 'Tabloid'],
  ['a signature without text', drawing(5000, 5000, {}), 'A4', 'Letter'],
])('%s goes on the sheet on which its text is 7 pt or more', (_name, one, metric, imperial) => {
  expect(sheetFor({ size: 'A4', sections: of(one) })).toBe(metric)
  expect(sheetFor({ size: 'Letter', sections: of(one) })).toBe(imperial)
})

it('a drawing fits below the title and its heading', () => {
  expect(drawingRoomPt('A4')).toEqual([expect.closeTo(539.28), 663])
})
