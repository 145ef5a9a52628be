import { formatQuantity as q } from '../../units/format'
import { check, word } from '../check'

export const school = check({
  id: 'mixed.school',
  title: 'Lead and lithium together',
  about: 'battery',
  why: 'Joined, the lithium works first and the lead rests; one that fails drags the other with it unless each can be parted.',
  judge(_subject, { bank, one, rules }) {
    const { mixed, chargeStop, isolators } = one.use
    if (mixed === 'replaced') return null
    if (rules.mixedSchool === 'never') {
      return {
        verdict: 'does-not-suit',
        compared: [word('wished', mixed === 'hybrid' ? 'in parallel' : 'behind a relay'), word('shop does', 'DC-DC between')],
        limit: { kind: 'rule', text: 'shop rule: lithium in direct parallel with lead-acid, never' },
        formula: () => 'joined directly ≠ a DC-DC between; the other school is one click away in the rules of this job',
        summary: () => 'The lead is to stay joined with the lithium, and the shop’s rule is a DC-DC unit between them. Under the other school it would be judged by its conditions.',
        remedies: [{ id: 'mixed.separate', on: 'use' }],
      }
    }
    const weakV = 12.4 * bank.scale
    const missing = [
      ...(bank.each.leadParallel === 'no' ? ['the maker permits it'] : []),
      ...(chargeStop === 'no' ? ['charge and discharge stops'] : []),
      ...(isolators === 'no' ? ['a switch for each'] : []),
      ...(one.houseBank.restedV < weakV ? [`healthy lead (${q(one.houseBank.restedV, 'V')} rested)`] : []),
    ]
    const forbidden = bank.each.leadParallel === 'no'
    return {
      verdict: missing.length === 0 ? 'suits' : forbidden ? 'does-not-suit' : 'suits-once-changed',
      compared: [word('missing', missing.length === 0 ? 'nothing' : `${missing.length} of 4 conditions`), word('wanted', 'all of them')],
      limit: forbidden ? bank.each.$origin('leadParallel') : { kind: 'rule', text: 'shop rule: hybrid bank with conditions' },
      formula: () => (missing.length === 0 ? 'permitted, stops, switches, healthy lead' : `missing: ${missing.join(', ')}`),
      summary: () => (missing.length === 0 ? 'The hybrid bank meets its conditions.' : `The hybrid bank lacks ${missing.join(' and ')}.`),
      remedies: missing.length === 0 ? [] : forbidden ? [{ id: 'battery.other', on: 'candidate' }, { id: 'mixed.separate', on: 'use' }] : [{ id: 'mixed.conditions', on: 'use', value: 12.7 * bank.scale }, { id: 'mixed.separate', on: 'use' }],
    }
  },
})
