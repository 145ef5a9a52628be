import { describe, expect, it } from 'vitest'
import { readProofCsv, readValue, writeProofCsv } from './proof-csv'

const volts = { id: 'rested-bank', quantity: 'volts', unit: 'V' } as const
const answer = { id: 'acts-reset', quantity: 'answer', unit: '' } as const
const tests = [volts, answer]

describe('readings of tests as a table', () => {
  it('are read with or without their unit, with a comma or a point', () => {
    const { readings, problems } = readProofCsv('test;value\nrested-bank;13,28\nacts-reset;yes\n', tests)
    expect(problems).toEqual([])
    expect(readings.map(({ test, value }) => [test.id, value])).toEqual([
      ['rested-bank', 13.28],
      ['acts-reset', 1],
    ])
    expect(readValue('350 mV', volts)).toEqual({ ok: true, value: 0.35 })
    expect(readValue('no', answer)).toEqual({ ok: true, value: 0 })
  })
  it('count once: of a test that stands twice the last', () => {
    const { readings } = readProofCsv('test,value\nrested-bank,13\nrested-bank,13.2\n', tests)
    expect(readings.map(({ value }) => value)).toEqual([13.2])
  })
  it.each([
    ['test,value\nrested-bonk,13\n', 2, 'test'],
    ['test,value\nrested-bank,high\n', 2, 'value'],
    ['test,value\nrested-bank,\n', 2, 'value'],
    ['name,amount\nrested-bank,13\n', 1, 'name'],
    ['', 1, ''],
  ])('say what is wrong with %j by line and column', (text, line, column) => {
    const { problems } = readProofCsv(text, tests)
    expect(problems[0]).toMatchObject({ line, column })
  })
  it('are written as they are read', () => {
    const readings = [{ test: volts, value: 13.28 }]
    expect(readProofCsv(writeProofCsv(readings), tests).readings).toEqual(readings)
  })
})
