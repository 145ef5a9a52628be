import { expect, it } from 'vitest'
import type { Parameter } from './parameters'
import type { Prediction } from './prediction'
import type { Rig } from './rig'
import { steadyOf } from './steady'
import type { ProofTest } from './tests/test'

/** Two runs, each of which is off by 1 Ω or so. */
const parameters: Parameter[] = ['a', 'b'].map((run) => ({ kind: 'run', run, sd: 1 }))
const rig = { addedOhm: {} } as Rig
const sumOf = ({ addedOhm: { a = 0, b = 0 } }: Rig): number => a + b

/** What tests with an instrument of 0.1 read of a rig. */
const reads: Readonly<Record<string, (rig: Rig) => number>> = {
  straight: (of) => sumOf(of),
  // A regulator takes over beyond what one of them alone reaches.
  bent: (of) => sumOf(of) + Math.max(0, sumOf(of) - 1.9),
  jumping: (of) => sumOf(of) + (sumOf(of) > 1.9 ? 50 : 0),
}
const tests = Object.keys(reads).map((id) => ({ id, instrument: 'clamp' }) as ProofTest)
const expected = (): Prediction => ({ value: 0, slopes: { at: [0, 1], by: [1, 1] }, bent: 0 })
const readings = (of: Rig): Map<string, number> =>
  new Map(Object.entries(reads).map(([id, read]) => [id, read(of)]))

const steady = steadyOf(tests, { rig, parameters, expected, readings })

it('leaves out a test whose reading jumps', () => {
  expect(steady.tests.map(({ id }) => id)).toEqual(['straight', 'bent'])
})

it('tells how far readings bend where several parameters meet, and that straight ones do not', () => {
  expect(steady.astray.get('straight')).toBeCloseTo(0, 12)
  // E[max(0, x − 1.9)²] of a normal x with a variance of 2 is about 0.07.
  expect(steady.astray.get('bent')).toBeGreaterThan(0.02)
  expect(steady.astray.get('bent')).toBeLessThan(0.2)
})
