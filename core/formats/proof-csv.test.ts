import { describe, expect, it } from 'vitest'
import { isRecording, readProofCsv, readRecordingCsv, readValue } from './proof-csv'

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
})

describe('a recording of instruments', () => {
  const drop = {
    id: 'drop-main-lead',
    quantity: 'volts',
    unit: 'V',
    run: 'main-lead',
    from: 'bank-plus',
  } as const
  const clamp = { id: 'draws-main-lead', quantity: 'amps', unit: 'A', run: 'main-lead', from: null } as const
  const placed = [drop, clamp]

  it('is told from a table of readings by its header', () => {
    expect(isRecording('time,quantity,at,value,unit\n')).toBe(true)
    expect(isRecording('test,value\n')).toBe(false)
  })
  it('returns the settled reading of each instrument, in the unit of its test', () => {
    const rising = Array.from({ length: 20 }, (_, i) => `${i},amps,main-lead,${i < 10 ? i : 96},A`)
    const text = ['time,quantity,at,value,unit', ...rising, '3,volts,drop-main-lead,39,mV'].join('\n')
    const { readings, problems } = readRecordingCsv(text, placed)
    expect(problems).toEqual([])
    expect(readings).toEqual([
      { test: clamp, value: 96 },
      { test: drop, value: 0.039 },
    ])
  })
  it('names tests and parts that the job lacks, by line', () => {
    const { problems } = readRecordingCsv('time,quantity,at,value,unit\n0,amps,nowhere,3,A\n', placed)
    expect(problems[0]).toMatchObject({ line: 2, column: 'at' })
  })
})
