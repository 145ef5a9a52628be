import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { JobDocument } from '#core/job/document'
import type { Network, Run } from '#core/wiring/network'
import { networkOf } from '#core/wiring/of-job'
import { runAmpacityA } from '#core/wiring/size'
import { heatingA } from '#core/wiring/size-rules'
import { Solved } from '#core/wiring/solved'
import { isSizeUnknown } from '#core/wiring/words'
import { cableSizesMm2 } from '#core/physics/conductors'
import { fuseSizesA } from '#core/physics/fuses'
import { anyJobFrom, long, pick, withValues, type Values } from '#core/testing'
import { demoJob } from '../../scripts/bench/demo-jobs'
import { wiredJob, type WiredJob } from './wired'

// What the checks of a wiring call Suits, held against the solution of its network by rules of this file alone,
// whatever someone has set by hand.

const demos = ['0417', '0421', '0424', '0427', '0430', '0433'].map(demoJob)
const share = fc.double({ min: 0, max: 1, noNaN: true, maxExcluded: true })
const someSet = fc.array(fc.record({ what: fc.nat(4), which: share, at: share }), { maxLength: 6 })

/**
 * Something of a wiring set by hand: the size, length or number of a run, the rating or family of a fuse, or that it
 * is left out.
 */
function setBy({ posts, runs }: Network, what: number, which: number, at: number): Values {
  const run = pick(runs, which).id
  const fuse = pick(
    posts.filter(({ kind }) => kind === 'fuse'),
    which,
  ).id
  switch (what) {
    case 0:
      return { [`runs/${run}/areaMm2`]: pick(cableSizesMm2, at) }
    case 1:
      return { [`runs/${run}/lengthM`]: Number((0.1 + 20 * at).toFixed(1)) }
    case 2:
      return { [`fittings/${fuse}/ratedA`]: pick(fuseSizesA, at) }
    case 3:
      return { [`fittings/${fuse}/family`]: pick(['blade', 'anl', 'bolt-down-midi', 'class-t'], at) }
    default:
      return { [`fittings/${fuse}/absent`]: 'yes' }
  }
}

const byHand = fc.tuple(anyJobFrom(demos), someSet).map(([job, set]): JobDocument => {
  const network = networkOf(job)
  return set.reduce((next, { what, which, at }) => withValues(next, setBy(network, what, which, at)), job)
})

/** A wiring with its network solved. */
class Seen {
  readonly solved: Solved
  constructor(private readonly wired: WiredJob) {
    this.solved = new Solved(wired.network)
  }
  get runs(): readonly Run[] {
    return this.wired.network.runs.filter((run) => run.areaMm2 !== null && !isSizeUnknown(run))
  }
  get fuses() {
    return this.wired.network.posts.filter(({ kind }) => kind === 'fuse')
  }
  carries(run: Run): number {
    return runAmpacityA(run, run.areaMm2!, run.count)
  }
  /** Whether one of some checks finds something on one of some parts. */
  isFound(checks: readonly string[], ons: readonly string[]): boolean {
    return this.wired.checks.some(
      ({ id, on, verdict }) => checks.includes(id) && ons.includes(on) && verdict !== 'suits',
    )
  }
  /** The most that is lost on the way of a run and on its own returns, V, while current flows in it. */
  mostLostV(way: readonly Run[]): number {
    const { cases, ways } = this.solved
    const losses = cases
      .filter(({ kind }) => kind !== 'short' && kind !== 'cranking')
      .map((at) => {
        const { volts, amps } = this.solved.in(at)
        if (Math.abs(amps.get(way[0]!.id) ?? 0) < 0.5) return 0
        const lostIn = ({ from, to }: Run): number => volts.get(from)! - volts.get(to)!
        return Math.abs(
          way.reduce((sum, run) => {
            const back = ways.returnOf(run.id)
            return sum + lostIn(run) + (back ? lostIn(back) : 0)
          }, 0),
        )
      })
    return Math.max(0, ...losses)
  }
}

const holds = (rule: (seen: Seen, wired: WiredJob) => readonly string[]): void =>
  fc.assert(
    fc.property(byHand, (job) => {
      const wired = wiredJob(job, {})
      expect(rule(new Seen(wired), wired)).toEqual([])
    }),
    { numRuns: 40 },
  )
const idsOf = (some: readonly { readonly id: string }[]): string[] => some.map(({ id }) => id)

describe('a wiring set by hand at random is called sound in nothing that is not', () => {
  it('no fuse is larger than its conductor’s ampacity', long, () => {
    holds((seen) =>
      idsOf(
        seen.runs.filter((run) => {
          const fuse = seen.solved.ways.fuseOf(run)
          if (!fuse || run.role === 'cranking' || run.role === 'bond') return false
          return (
            fuse.fitting!.ratedA! > seen.carries(run) &&
            !seen.isFound(['wiring.fuse-rating'], [`runs/${run.id}`])
          )
        }),
      ),
    )
  })
  it('no more flows for hours in a conductor than it carries', () => {
    holds((seen) =>
      idsOf(
        seen.runs.filter(
          (run) =>
            heatingA(seen.solved.design.get(run.id)!) > seen.carries(run) + 1e-6 &&
            !seen.isFound(['wiring.ampacity'], [`runs/${run.id}`]),
        ),
      ),
    )
  })
  it('no short is more than its fuse interrupts', () => {
    holds((seen) =>
      idsOf(
        seen.fuses.filter(
          ({ id, fitting }) =>
            seen.solved.shortNearA(id) > (fitting!.aicA ?? 0) &&
            !seen.isFound(['wiring.fuse-interrupt'], [`fittings/${id}`]),
        ),
      ),
    )
  })
  it('no path loses more than its limit, or its fuse is too small for the current', long, () => {
    holds((seen, { runs }) =>
      idsOf(
        seen.runs.filter((run) => {
          if (run.returnOf !== null || run.role === 'bond' || run.role === 'cranking') return false
          const way = seen.solved.ways.wayOf(run)
          const shares = way.map(({ id }) => runs.find((one) => one.id === id)!.allowedShare)
          const mayV = Math.max(...shares) * seen.solved.ways.post(run.from)!.nominalV
          const ons = way.map(({ id }) => `runs/${id}`)
          return (
            seen.mostLostV(way) > 1.02 * mayV + 0.005 &&
            !seen.isFound(['wiring.drop', 'wiring.fuse-rating'], ons)
          )
        }),
      ),
    )
  })
})
