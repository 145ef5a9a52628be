import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { LineReader, readInstrumentLine, ShuntLines } from './instrument-lines'

describe('lines of an instrument', () => {
  it.each([
    ['current,shunt,-12.4,A', { quantity: 'current', at: 'shunt', value: -12.4 }],
    ['Voltage;house;12850;mV', { quantity: 'voltage', at: 'house', value: 12.85 }],
    ['temperature,case,140,F', { quantity: 'temperature', at: 'case', value: 60 }],
    ['voltage,,13.2', { quantity: 'voltage', at: '', value: 13.2 }],
    [
      '{"quantity":"current","at":"shunt","value":3.5,"unit":"A"}',
      { quantity: 'current', at: 'shunt', value: 3.5 },
    ],
    ['{"quantity":"voltage","value":"12.6"}', { quantity: 'voltage', at: '', value: 12.6 }],
  ])('%s', (line, means) => expect(readInstrumentLine(line)).toEqual(means))

  it('are left out where they are none', () => {
    for (const line of [
      '',
      '# started',
      'quantity,at,value,unit',
      'current,shunt,',
      '{"quantity":',
      '{}',
      'null',
      'power,shunt,4,W',
      'current,shunt,x,A',
      `current,${'x'.repeat(600)},1,A`,
    ])
      expect(readInstrumentLine(line)).toBeNull()
    fc.assert(fc.property(fc.string(), (text) => void readInstrumentLine(text)))
  })

  it('come in pieces, with any line ends', () => {
    const reader = new LineReader()
    expect(['current,sh', 'unt,1,A\r\nvolt', 'age,,12,V\nx'].flatMap((piece) => reader.push(piece))).toEqual([
      'current,shunt,1,A',
      'voltage,,12,V',
    ])
  })

  it('make a reading of a shunt with each current once a voltage is known', () => {
    const shunt = new ShuntLines()
    const read = ['current,,-1,A', 'voltage,,12.8,V', 'current,,-2,A', 'current,,-3,A'].map((line, t) =>
      shunt.push(readInstrumentLine(line)!, t),
    )
    expect(read).toEqual([null, null, { t: 2, amps: -2, volts: 12.8 }, { t: 3, amps: -3, volts: 12.8 }])
  })
})
