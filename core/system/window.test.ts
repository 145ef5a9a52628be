import { describe, expect, it } from 'vitest'
import { factsOf, usualSystem } from './system'
import { candidate, type Values } from '#core/testing'

/** What a 12 V battery is charged within, of whose data some are entered. */
function windowBy(values: Values) {
  const { lowV, highV, middleV, absoluteV, bmsOverV, maxFloatV, highField } = usualSystem(
    factsOf(candidate(values)),
  ).bank
  return { lowV, highV, middleV, absoluteV, bmsOverV, maxFloatV, highField }
}

describe('the charge window of a battery', () => {
  it('is the shop’s where its data give none', () =>
    expect(windowBy({})).toEqual({
      lowV: 14.2,
      highV: 14.6,
      middleV: 14.4,
      absoluteV: 14.8,
      bmsOverV: 15,
      maxFloatV: 13.6,
      highField: 'chargeHighV',
    }))

  it.each<[string, Values, ReturnType<typeof windowBy> extends infer W ? Partial<W> : never]>([
    ['stays under a cut that is entered', { bmsOverV: 14.4 }, { highV: 14.3, highField: 'bmsOverV' }],
    [
      'never passes an absolute highest',
      { absoluteHighV: 14.4 },
      { highV: 14.4, highField: 'absoluteHighV' },
    ],
    [
      'is no wider than a highest under its usual lowest',
      { chargeHighV: 13.8 },
      { lowV: 13.8, middleV: 13.8 },
    ],
    ['reaches a lowest over its usual highest', { chargeLowV: 14.8 }, { highV: 14.8, middleV: 14.8 }],
    ['reaches what is recommended', { chargeRecommendedV: 14.9 }, { highV: 14.9, middleV: 14.9 }],
    [
      'of two that contradict each other takes the stricter',
      { chargeHighV: 14.8, absoluteHighV: 14.5, chargeRecommendedV: 14.7 },
      { highV: 14.5, middleV: 14.5, absoluteV: 14.5 },
    ],
    [
      'raises the usual limits above the maker’s limit',
      { chargeHighV: 15.2 },
      { absoluteV: 15.2, bmsOverV: 15.2 },
    ],
    ['holds a float to its highest', { chargeHighV: 13.5 }, { maxFloatV: 13.5 }],
  ])('%s', (_, values, wanted) => expect(windowBy(values)).toMatchObject(wanted))

  it('is as wide in series, and its cut is kept off by as much for each', () =>
    expect(windowBy({ bmsOverV: 14.4, series: 2 }).highV).toBeCloseTo(28.6, 9))
})

describe('the charge current of a battery', () => {
  const currents = (values: Values) => {
    const { recommendedA, largestA, targetA, targetField } = usualSystem(factsOf(candidate(values))).bank
    return { recommendedA, largestA, targetA, targetField }
  }
  it('is never recommended over its largest, where its maker gives that alone', () =>
    expect(currents({ recommendedChargeA: null, largestChargeA: 25 })).toEqual({
      recommendedA: 25,
      largestA: 25,
      targetA: 25,
      targetField: 'largestChargeA',
    }))
  it('is as recommended where that is less', () =>
    expect(currents({ recommendedChargeA: 20, largestChargeA: 100 })).toMatchObject({
      targetA: 20,
      largestA: 100,
      targetField: 'recommendedChargeA',
    }))
})
