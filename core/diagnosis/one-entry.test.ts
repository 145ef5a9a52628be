import { describe, expect, it } from 'vitest'
import { present } from '#core/collections/held'
import { goodJob, long } from '#core/testing'
import { Diagnosis } from './diagnosis'
import { stepsBetween, type Fault } from './faults/fault'
import { allFaults } from './faults/index'
import { rankingRows } from './rows'

// CONTRIBUTING says that a fault is one entry. This is one, made as it says.
const lampLeftOn: Fault = {
  id: 'lamp-left-on',
  title: 'Lamp left on',
  prior: 5,
  unit: 'A',
  scale: 'apart',
  harm: 'stranded',
  places: () => [{ at: 'bar-plus', where: 'in the cabin', sizes: stepsBetween(1, 4, 4) }],
  change: (rig, _at, amps) => ({ ...rig, standingA: rig.standingA + amps }),
  mend: 'Switch it off.',
}
const others = allFaults.filter(({ id }) => id !== 'standing-draw')

describe('one entry is all that a fault needs', () => {
  const bench = new Diagnosis(goodJob(), {}, [...others, lampLeftOn])

  it('to be found by a reading that it explains, with its place, size and words', long, () => {
    const { expected } = bench
    const { test } = expected.find((one) => one.test.id === 'quiet-amps')!
    const sound = bench.proof.readings(bench.proof.rig, [test]).get(test.id)!
    const posterior = bench.given([{ test, value: sound + 2 }])
    const [first] = rankingRows(bench, posterior).ranking
    expect(first).toMatchObject({ fault: 'lamp-left-on', at: 'bar-plus' })
    expect(present(first).size).toBeCloseTo(2, 0)
    expect(posterior.top().cause).toMatchObject({ where: 'in the cabin', fault: lampLeftOn })
  })
})
