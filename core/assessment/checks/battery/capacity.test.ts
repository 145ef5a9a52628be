import { describe, expect, it } from 'vitest'
import { assessed, goodJob, withValues, type Values } from '#core/testing'

/** Cautions of the days away, with 120 Ah used a day and 90 Ah from the engine. */
const cautionsOf = (values: Values): readonly string[] | undefined =>
  assessed(withValues(goodJob(), { 'use/dailyAh': 120, 'use/daysAway': 2, ...values })).checks.find(
    ({ id }) => id === 'battery.autonomy',
  )?.cautions

describe('sources that bring less than the daily use', () => {
  it('are named with the time until the battery is empty, by hand: 153 Ah ÷ (120 − 90)', () =>
    expect(cautionsOf({ 'chargers/charger-1/hours': 0 })).toEqual([
      'All sources together return 90 Ah of the 120 Ah used a day. ' +
        'Charge the battery from the mains or a generator within 5.1 days.',
    ]))

  it.each<[string, Values]>([
    ['enough with the mains', { 'chargers/charger-1/hours': 1 }],
    ['enough without them', { 'chargers/charger-1/hours': 0, 'use/dailyAh': 80 }],
    ['mains of unknown hours', { 'chargers/charger-1/hours': null }],
    [
      'an engine of unknown hours',
      { 'chargers/charger-1/hours': 0, 'alternators/alternator-1/driveHours': null },
    ],
    ['too few days anyway, as the finding says', { 'chargers/charger-1/hours': 0, 'use/daysAway': 8 }],
  ])('are not named with %s', (_with, values) => expect(cautionsOf(values)).toEqual([]))
})
