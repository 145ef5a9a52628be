import { check, number, word } from '#core/assessment/check'
import { isOldLithium, oldBankStays } from '#core/system/energy'
import type { RemedyRef } from '#core/remedies/catalogue'

const apart: readonly RemedyRef[] = [
  { id: 'mixed.separate', on: 'use' },
  { id: 'mixed.replace', on: 'use' },
]

export const unlike = check({
  id: 'battery.unlike',
  title: 'Old and new lithium in parallel',
  about: 'battery',
  why: 'Unlike packs share the current unevenly. The BMS of the stronger cuts out first and leaves the load to the weaker.',
  judge(_subject, system) {
    const { bank, one, rules, q } = system
    if (!oldBankStays(system) || !isOldLithium(system)) return null
    const { ahEach, parallel, ageYears } = one.houseBank
    const { ahEach: newAh, mostParallel } = bank.each
    const count = parallel + bank.each.parallel
    const base = { remedies: apart, limit: bank.each.$origin('mostParallel') }
    if (ahEach !== newAh)
      return {
        ...base,
        verdict: 'does-not-suit',
        compared: [number('old', ahEach, 'Ah'), number('new', newAh, 'Ah')],
        formula: () => `${q(ahEach, 'Ah')} ≠ ${q(newAh, 'Ah')}`,
        summary: () =>
          `The old lithium battery has ${q(ahEach, 'Ah')} and the new one ${q(newAh, 'Ah')}. Unlike batteries must not be joined in parallel.`,
      }
    if (one.houseBank.sameModel === 'no')
      return {
        ...base,
        verdict: 'does-not-suit',
        compared: [word('old and new', 'unlike'), word('makers allow', 'the same model')],
        formula: () => 'another maker or model',
        summary: () =>
          'The old lithium battery is of another maker or model. Unlike batteries must not be joined in parallel.',
      }
    if (ageYears > rules.unlikeYears)
      return {
        ...base,
        verdict: 'does-not-suit',
        compared: [number('old is', ageYears, 'years'), number('at most', rules.unlikeYears, 'years')],
        limit: { kind: 'rule', text: 'shop rule: largest age apart of lithium batteries in parallel' },
        formula: () => `${q(ageYears, 'years')} > ${q(rules.unlikeYears, 'years')}`,
        summary: () =>
          `The old lithium battery is ${q(ageYears, 'years')} old; the shop joins batteries at most ${q(rules.unlikeYears, 'years')} apart.`,
      }
    const over = count > mostParallel
    return {
      ...base,
      verdict: over ? 'does-not-suit' : 'suits',
      compared: [number('in parallel', count, ''), number('maker allows', mostParallel, '')],
      formula: () => `${parallel} old + ${bank.each.parallel} new = ${count}; maker allows ${mostParallel}`,
      summary: () =>
        over
          ? `With the old lithium ${count} batteries are in parallel, and the maker allows ${mostParallel}.`
          : `The old lithium battery is of the same model, ${q(ageYears, 'years')} old: ${count} in parallel, as the maker allows.`,
      remedies: over ? apart : [],
      cautions: () => ['Charge each battery full on its own before you join them. Ask the maker first.'],
    }
  },
})
