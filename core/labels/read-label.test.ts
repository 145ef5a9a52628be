// cspell:disable
import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { partKinds, type Fields, type PartKindId } from '#core/job/fields'
import { scorePlate, sumOf } from '../../scripts/labels/score'
import { labelledKinds } from './kinds'
import { readLabel } from './read-label'
import { labelRules } from './rules'
import type { LabelWord } from './word'
import { kindWords } from './words-of-kind'

const [letter, high] = [14, 30]
/** Words as a recogniser gives them: one string a line, two spaces for a gap between columns. */
const printed = (...lines: readonly string[]): LabelWord[] =>
  lines.flatMap((line, row) => {
    let left = 40
    return line.split(' ').flatMap((text) => {
      const box = { left, top: 60 * row, right: left + letter * text.length, bottom: 60 * row + high }
      left += letter * (text.length + 1)
      return text === '' ? [] : [{ text, confidence: 0.95, box }]
    })
  })
const read = (part: PartKindId, ...lines: readonly string[]) => readLabel(printed(...lines), part)
const ticked = (part: PartKindId, ...lines: readonly string[]) =>
  Object.fromEntries(
    read(part, ...lines).values.flatMap(({ field, value, isSure }) => (isSure ? [[field, value]] : [])),
  )
const all = (part: PartKindId, ...lines: readonly string[]) =>
  Object.fromEntries(read(part, ...lines).values.map(({ field, value }) => [field, value]))

interface Recorded {
  readonly part: PartKindId
  readonly truth: Readonly<Record<string, number | string>>
  readonly words: readonly (readonly [string, number, number, number, number, number])[]
}

describe('forty plates as they were recognised', () => {
  const plates = JSON.parse(
    readFileSync(new URL('recorded-plates.json', import.meta.url), 'utf8'),
  ) as Recorded[]

  it('are read: at least 85 % of their values right and ticked, at most 1 % wrong and ticked', () => {
    const scores = plates.map(({ part, truth, words }) =>
      scorePlate(
        { part, truth },
        words.map(([text, confidence, left, top, right, bottom]) => ({
          text,
          confidence,
          box: { left, top, right, bottom },
        })),
      ),
    )
    const values = sumOf(scores, 'values')
    expect(plates).toHaveLength(40)
    expect(values).toBeGreaterThan(200)
    expect(sumOf(scores, 'right') / values).toBeGreaterThan(0.85)
    expect(sumOf(scores, 'wrong') / values).toBeLessThan(0.01)
  })
})

describe('a battery', () => {
  it('is read in six languages', () => {
    for (const [capacity, charge, most, discharge, cold] of [
      [
        'Rated capacity',
        'Charge voltage',
        'Max. charge current',
        'Max. discharge current',
        'Charge temperature',
      ],
      ['Nennkapazität', 'Ladeschlussspannung', 'Max. Ladestrom', 'Dauerentladestrom', 'Ladetemperatur'],
      [
        'Capacité',
        'Tension de charge',
        'Courant de charge max.',
        'Courant de décharge',
        'Température de charge',
      ],
      [
        'Capacidad',
        'Tensión de carga',
        'Corriente máx. de carga',
        'Corriente de descarga',
        'Temperatura de carga',
      ],
      [
        'Capacità',
        'Tensione di carica',
        'Corrente di carica max.',
        'Corrente di scarica',
        'Temperatura di carica',
      ],
      ['Capaciteit', 'Laadspanning', 'Max. laadstroom', 'Ontlaadstroom', 'Laadtemperatuur'],
    ])
      expect(
        ticked(
          'candidate',
          'LiFePO4 12,8 V',
          `${capacity}: 200 Ah`,
          `${charge}: 14,6 V`,
          `${most} 100 A`,
          `${discharge} 150 A`,
          `${cold}: 0...+45 °C`,
        ),
      ).toEqual({
        chemistry: 'lfp',
        nominalV: '12',
        ahEach: 200,
        chargeHighV: 14.6,
        largestChargeA: 100,
        continuousA: 150,
        coldLimitC: 0,
        chargeHotC: 45,
      })
  })

  it('takes both ends of a range, signs and units on each', () => {
    expect(
      ticked('candidate', '25.6V', 'Charge voltage 28.4 V - 29.2 V', 'Discharge temperature: -20°C ~ 60°C'),
    ).toEqual({
      nominalV: '24',
      chargeLowV: 28.4,
      chargeHighV: 29.2,
      dischargeColdC: -20,
      dischargeHotC: 60,
    })
    expect(all('candidate', 'Storage temperature -10 to 35 °C')).toEqual({})
  })

  it('takes a peak with its time, and a time whose unit was read as a digit, which is not ticked', () => {
    expect(ticked('candidate', 'Peak current 300 A (5 s)')).toEqual({ peakA: 300, peakS: 5 })
    expect(ticked('candidate', 'Peak current 300 A (55)')).toEqual({ peakA: 300 })
    expect(all('candidate', 'Peak current 300 A (55)')).toEqual({ peakA: 300, peakS: 5 })
  })

  it('puts a lost decimal point in where one choice is left, and does not tick it', () => {
    const { values } = read('candidate', '12.8 V', 'Charge voltage 146 V')
    expect(values.find(({ field }) => field === 'chargeHighV')).toMatchObject({
      value: 14.6,
      isSure: false,
      doubt: 'A decimal point was put in',
      printed: '146 V',
    })
  })

  it('ticks a voltage whose decimal point was lost where capacity and energy confirm it', () => {
    expect(ticked('candidate', 'Voltage 128V', 'Capacity 100 Ah', 'Energy 1280 Wh')).toMatchObject({
      nominalV: '12',
      ahEach: 100,
    })
  })

  it('ticks a nominal voltage whose decimal point was lost where the charge voltage is one of that system', () => {
    expect(ticked('candidate', 'Nennspannung 512 V', 'Ladespannung 58,4 V')).toEqual({
      nominalV: '48',
      chargeHighV: 58.4,
    })
    expect(ticked('candidate', 'Nennspannung 512 V', 'Ladespannung 14,6 V').nominalV).toBeUndefined()
  })

  it('shows that Ah × V and Wh contradict each other, and ticks neither', () => {
    const reading = read('candidate', 'Voltage 12.8 V', 'Capacity 200 Ah', 'Energy 1280 Wh')
    expect(reading.contradictions).toEqual(['200 Ah × 12.8 V is 2560 Wh. The label says 1280 Wh.'])
    expect(reading.values.filter(({ isSure }) => isSure)).toEqual([])
  })

  it('does not tick a charge current that nobody calls the largest', () => {
    expect(ticked('candidate', 'Charge current 40 A')).toEqual({})
    expect(all('candidate', 'Charge current 40 A')).toEqual({ largestChargeA: 40 })
    expect(ticked('candidate', 'Recommended charge current 40 A')).toEqual({ recommendedChargeA: 40 })
  })

  it('that says two things of one value ticks neither', () => {
    expect(ticked('candidate', 'Capacity 100 Ah', 'Capacity 110 Ah')).toEqual({})
  })

  it('does not tick a value that is out of the usual range, no usual size or hard to read', () => {
    expect(ticked('candidate', '12.8 V', 'Charge voltage 18.6 V')).toEqual({ nominalV: '12' })
    expect(ticked('candidate', 'Max. charge current 206 A')).toEqual({})
    const faint = printed('Capacity 200 Ah').map((word) => ({ ...word, confidence: 0.4 }))
    expect(readLabel(faint, 'candidate').values).toMatchObject([
      { value: 200, isSure: false, doubt: 'Hard to read' },
    ])
  })
})

describe('other parts', () => {
  it('mains voltage is never a battery voltage, nor a charger’s input its output current', () => {
    expect(
      ticked(
        'chargers',
        'Input: 220-240 V~ 50/60 Hz 2.4 A',
        'Output: 12VDC40A',
        'Absorption 14,4V',
        'Float: 13.6 V',
      ),
    ).toEqual({
      nominalV: '12',
      ratedA: 40,
      absorptionV: 14.4,
      floatV: 13.6,
    })
    expect(all('inverters', 'Output 230 V AC 50 Hz')).toEqual({})
  })

  it('the fuse of a charger is not its output', () => {
    expect(ticked('chargers', 'Fuse 5 A', 'Output 12 V 30 A').ratedA).toBe(30)
    expect(ticked('links', 'Sicherung 40 A', 'Ausgangsstrom 30 A').ratedA).toBe(30)
  })

  it('a unit for two systems has no nominal voltage', () => {
    for (const words of ['12/24 V', '12V/24V', '12 V / 24 V'])
      expect(all('chargers', `Voltage ${words}`).nominalV, words).toBeUndefined()
  })

  it('a DC-DC charger has an input and an output, and a range of input voltages is a system', () => {
    expect(ticked('links', 'DC-DC Charger', 'Input: 22...32 V DC', 'Output: 12 V 30 A')).toEqual({
      kind: 'dcdc',
      inputV: '24',
      outputV: '12',
      ratedA: 30,
    })
  })

  it('a panel and a solar controller are told apart', () => {
    expect(
      ticked(
        'solar',
        'Pmax 110 W',
        'Voc 22,5 V',
        'Isc 6,29 A',
        'Vmp 18,7 V',
        'Imp 5,88 A',
        'Max. system voltage 600 V',
      ),
    ).toEqual({
      panelW: 110,
      openCircuitV: 22.5,
      shortCircuitA: 6.29,
      maxPowerV: 18.7,
      maxPowerA: 5.88,
    })
    expect(ticked('solar', 'MPPT Solar Controller', 'Max. PV voltage 100 V', 'Rated current 30 A')).toEqual({
      controller: 'mppt',
      maxPvV: 100,
      ratedA: 30,
    })
  })

  it('an alternator of 14 V belongs to a system of 12 V; a starting battery has its cranking current', () => {
    expect(ticked('alternators', '28V/80A')).toEqual({ nominalV: '24', ratedA: 80 })
    expect(ticked('startingBatteries', '12V 80Ah 680 CCA')).toEqual({ nominalV: '12', ah: 80, cca: 680 })
    expect(ticked('startingBatteries', '12 V 95 Ah 850 A (EN)')).toEqual({ nominalV: '12', ah: 95, cca: 850 })
  })

  it('one battery of a house bank does not say how many volts the house has', () => {
    expect(ticked('houseBank', 'AGM 12 V 110 Ah (C20)', 'Weight 31 kg')).toEqual({
      chemistry: 'agm',
      ahEach: 110,
      weightEachKg: 31,
    })
  })

  it('model and serial number stand after their words', () => {
    const reading = read('chargers', 'Model No.: TER-12/30', 'S/N B8554249')
    expect([reading.model?.text, reading.serial?.text]).toEqual(['TER-12/30', 'B8554249'])
    expect(read('chargers', 'Model', 'Made in the workshop').model).toBeNull()
  })

  it('two columns are read as rows, a little aslant too', () => {
    const words = printed('Absorption 14.4 V      Model TER-12/30', 'Float 13.6 V      Output 12 V 30 A').map(
      ({ box, ...word }) => {
        const fall = box.left * 0.02
        return { ...word, box: { ...box, top: box.top + fall, bottom: box.bottom + fall } }
      },
    )
    const { values, model } = readLabel(words, 'chargers')
    expect(Object.fromEntries(values.map(({ field, value }) => [field, value]))).toEqual({
      absorptionV: 14.4,
      floatV: 13.6,
      nominalV: '12',
      ratedA: 30,
    })
    expect(model?.text).toBe('TER-12/30')
  })
})

describe('rules of labels', () => {
  it('are of fields that the parts have, with options that they have', () => {
    expect(Object.keys(labelRules).toSorted()).toEqual(labelledKinds.toSorted())
    for (const part of labelledKinds) {
      const fields: Fields = partKinds[part].fields
      for (const { field, low, high } of labelRules[part] ?? [])
        for (const name of [field, low, high]) if (name) expect(fields[name], `${part} ${name}`).toBeDefined()
      for (const { field, option } of kindWords[part] ?? []) {
        const known = fields[field]
        expect(known?.type === 'choice' && option in known.options, `${part} ${field} ${option}`).toBe(true)
      }
    }
  })

  it('let nothing through that a field could not hold, whatever stands on a label', () => {
    const word = fc.oneof(
      fc.constantFrom(
        'Charge',
        'voltage',
        'Output',
        'V',
        'A',
        '14.6V',
        '1e9',
        '999999999Ah',
        '-40',
        '°C',
        '<b>',
        'S/N',
      ),
      fc.string({ maxLength: 12 }),
    )
    fc.assert(
      fc.property(fc.array(word, { maxLength: 30 }), fc.constantFrom(...labelledKinds), (words, part) => {
        const fields: Fields = partKinds[part].fields
        for (const { field, value } of readLabel(printed(words.join(' ')), part).values) {
          const known = fields[field]
          if (known?.type === 'quantity') {
            expect(value).toBeGreaterThanOrEqual(known.limits[0])
            expect(value).toBeLessThanOrEqual(known.limits[1])
          } else expect(known?.type === 'choice' && value in known.options).toBe(true)
        }
      }),
    )
  })
})
