import { joinText } from '#core/units/format'
import { fuseTests, looksOf } from './looks'
import { type Bench, answerTest, restOf } from './make'
import type { ProofTest } from './test'

/** Things that are looked at in a minute, on the way round. */
const itemsAMinute = 6

/** The one look at everything. */
export const walkRoundId = 'walk-round'

/**
 * The walk-round: everything in one go by place, and each item as a separate test for cases
 * something differs.
 */
export function walkTests(bench: Bench): ProofTest[] {
  const looks = looksOf(bench)
  const singles = looks.flatMap(({ tests }) => tests)
  const asListed = new Map(singles.map((test) => [test, test.read([], bench.rig)]))
  const round = answerTest({
    id: walkRoundId,
    title: 'Walk-round: sizes, settings and lugs',
    group: 'looks',
    state: restOf(bench),
    how: joinText(
      'Go from place to place with the list. Check each print and setting, follow each negative cable, ',
      'pull each lug, set each torque. Yes if everything matches, no if something differs.',
    ),
    minutes: Math.ceil(looks.length / itemsAMinute),
    always: true,
    read: (_seen, rig) => (singles.every((test) => test.read([], rig) === asListed.get(test)) ? 1 : 0),
    list: looks.map(({ place, words, tests }) => ({ place, words, tests: tests.map(({ id }) => id) })),
  })
  return [...(looks.length > 0 ? [round] : []), ...singles, ...fuseTests(bench)]
}
