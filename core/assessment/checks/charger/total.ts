import { joinText, nameInSentence } from '#core/units/format'
import { check, number } from '#core/assessment/check'
import { oneHeldBack } from '#core/remedies/arrangements'
import type { RemedyRef } from '#core/remedies/catalogue'
import { sharesBus } from '#core/system/energy'
import { givingTogether, sumOf, type Giving } from '#core/system/together'
import { allowsParallel } from '#core/system/more-batteries'
import type { System } from '#core/system/system'

const totalCharge = check({
  id: 'bank.total-charge',
  title: 'All sources together',
  about: 'together',
  why: joinText(
    'Each source alone can be gentle. ',
    'Together they can exceed the maker’s limit, and no single unit shows it.',
  ),
  judge({ way, name }, system) {
    const { q } = system
    const { bank } = system
    if (sharesBus(system)) return null
    const giving = givingTogether(way, system)
    if (giving.length < 2) return null
    const together = sumOf(giving)
    const recommended = bank.targetField === 'recommendedChargeA'
    const mostA = bank.targetA
    const over = together > mostA + 0.05
    const list = giving.map(({ lane, amps }) => `${nameInSentence(lane.name)} ${q(amps, 'A')}`).join(', ')
    return {
      verdict: over ? 'suits-once-changed' : 'suits',
      compared: [
        number('together', together, 'A'),
        number(recommended ? 'battery recommends' : 'battery allows', mostA, 'A'),
      ],
      limit: bank.each.$origin(bank.targetField),
      formula: () =>
        joinText(
          `${list}: ${q(together, 'A')} ${over ? '>' : '≤'} ${q(mostA, 'A')}`,
          recommended ? `; at most ${q(bank.largestA, 'A')}` : '',
        ),
      summary: () =>
        joinText(
          `${name} give ${q(together, 'A')} together, and the battery `,
          recommended ? 'recommends' : 'allows',
          ` ${q(mostA, 'A')}`,
          over && together > bank.largestA ? ` and takes ${q(bank.largestA, 'A')} at most` : '',
          '.',
        ),
      remedies: () => (over ? lessOf(giving, mostA, system) : []),
    }
  },
})

/** One source held back so that all together are no more than a limit; else more battery. */
function lessOf(giving: readonly Giving[], mostA: number, system: System): RemedyRef[] {
  const { bank } = system
  const count = Math.ceil((sumOf(giving) / mostA) * bank.each.parallel)
  return [
    ...oneHeldBack(giving, mostA, system),
    ...(allowsParallel(count, system)
      ? [{ id: 'battery.more-parallel', on: 'candidate', value: count } as const]
      : []),
    { id: 'battery.other', on: 'candidate' },
  ]
}

export const checks = [totalCharge] as const
