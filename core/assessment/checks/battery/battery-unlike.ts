import { check, number, word, type Judgement } from '#core/assessment/check'
import { joinText } from '#core/units/format'
import { isOldLithium, oldBankStays } from '#core/system/energy'
import type { RemedyRef } from '#core/remedies/catalogue'
import type { System } from '#core/system/system'

const apart: readonly RemedyRef[] = [
  { id: 'mixed.separate', on: 'use' },
  { id: 'mixed.replace', on: 'use' },
]

const mustNot = 'Unlike batteries must not be joined in parallel.'

/** The old and the new battery are unlike: in capacity, in make, or in age; null where they are alike. */
function ifUnlike({ bank, one, rules, q }: System): Judgement | null {
  const { ahEach, ageYears } = one.houseBank
  const { ahEach: newAh } = bank.each
  const base = {
    verdict: 'does-not-suit',
    remedies: apart,
    limit: bank.each.$origin('mostParallel'),
  } as const
  if (ahEach !== newAh)
    return {
      ...base,
      compared: [number('old', ahEach, 'Ah'), number('new', newAh, 'Ah')],
      formula: () => `${q(ahEach, 'Ah')} ≠ ${q(newAh, 'Ah')}`,
      summary: () =>
        `The old lithium battery has ${q(ahEach, 'Ah')} and the new one ${q(newAh, 'Ah')}. ${mustNot}`,
    }
  if (one.houseBank.sameModel === 'no')
    return {
      ...base,
      compared: [word('old and new', 'unlike'), word('makers allow', 'the same model')],
      formula: () => 'another maker or model',
      summary: () => `The old lithium battery is of another maker or model. ${mustNot}`,
    }
  if (ageYears <= rules.unlikeYears) return null
  return {
    ...base,
    compared: [number('old is', ageYears, 'years'), number('at most', rules.unlikeYears, 'years')],
    limit: { kind: 'rule', text: 'shop rule: largest age apart of lithium batteries in parallel' },
    formula: () => `${q(ageYears, 'years')} > ${q(rules.unlikeYears, 'years')}`,
    summary: () =>
      joinText(
        `The old lithium battery is ${q(ageYears, 'years')} old; `,
        `the shop joins batteries at most ${q(rules.unlikeYears, 'years')} apart.`,
      ),
  }
}

const unlike = check({
  id: 'battery.unlike',
  title: 'Old and new lithium in parallel',
  about: 'battery',
  why: joinText(
    'Unlike packs share the current unevenly. ',
    'The BMS of the stronger cuts out first and leaves the load to the weaker.',
  ),
  judge(_subject, system) {
    const { bank, one, q } = system
    if (!oldBankStays(system) || !isOldLithium(system)) return null
    const { parallel, ageYears } = one.houseBank
    const { mostParallel } = bank.each
    const count = parallel + bank.each.parallel
    const found = ifUnlike(system)
    if (found) return found
    const over = count > mostParallel
    return {
      verdict: over ? 'does-not-suit' : 'suits',
      compared: [number('in parallel', count, ''), number('maker allows', mostParallel, '')],
      limit: bank.each.$origin('mostParallel'),
      formula: () => `${parallel} old + ${bank.each.parallel} new = ${count}; maker allows ${mostParallel}`,
      summary: () =>
        over
          ? `With the old lithium ${count} batteries are in parallel, and the maker allows ${mostParallel}.`
          : joinText(
              `The old lithium battery is of the same model, ${q(ageYears, 'years')} old: `,
              `${count} in parallel, as the maker allows.`,
            ),
      remedies: over ? apart : [],
      cautions: () => ['Charge each battery full on its own before you join them. Ask the maker first.'],
    }
  },
})

export const checks = [unlike] as const
