import { present, withId } from '#core/collections/held'
import { fittingOhmOf, runWithOhmOf } from '#core/wiring/fitting-ohm'
import type { PostKind } from '#core/wiring/network'
import { fuseSizesA } from '#core/physics/fuses'
import { withAdded } from '#core/commissioning/parameters'
import { type Bench } from '#core/commissioning/tests/make'
import { nameInSentence } from '#core/units/format'
import { sizesBeside, withOne, type Fault, type FaultPlace } from './fault'

const fittings = ({ rig: { network } }: Bench, kinds: readonly PostKind[]): FaultPlace[] =>
  network.posts
    .filter(({ kind, id }) => kinds.includes(kind) && network.runs.some(({ to }) => to === id))
    .map(({ id, name, fitting }) => ({
      at: id,
      where: `at ${fitting?.number ? `${fitting.number}, ` : ''}${nameInSentence(name)}`,
    }))

const fuseOpen: Fault = {
  id: 'fuse-open',
  title: 'Blown fuse',
  prior: 2,
  unit: '',
  scale: 'each',
  harm: 'stranded',
  places: (bench) => fittings(bench, ['fuse']),
  change: (rig, at) => ({ ...rig, blown: withOne(rig.blown, at) }),
  mend: 'Find out why it blew before you fit a new one.',
}

/** A wrong fuse is at most this many standard sizes off. */
const sizesOff = [2, 2] as const

const wrongFuse: Fault = {
  id: 'wrong-fuse',
  title: 'Wrong fuse rating',
  prior: 1,
  unit: 'A',
  scale: 'each',
  harm: ({ rig: { network } }, at, ratedA) =>
    ratedA > (withId(network.posts, at).fitting?.ratedA ?? 0) ? 'fire' : 'stranded',
  places: (bench) =>
    fittings(bench, ['fuse']).flatMap((place) => {
      const post = withId(bench.rig.network.posts, place.at)
      const ratedA = post.state === 'new' ? post.fitting?.ratedA : null
      return ratedA == null ? [] : [{ ...place, sizes: sizesBeside(fuseSizesA, ratedA, sizesOff) }]
    }),
  change: (rig, at, ratedA) => {
    const { posts, runs } = rig.network
    const specifiedA = withId(posts, at).fitting?.ratedA ?? null
    const more = fittingOhmOf('fuse', ratedA) - fittingOhmOf('fuse', specifiedA)
    const run = present(runWithOhmOf(at, runs))
    return { ...withAdded(rig, run.id, more), printedA: { ...rig.printedA, [at]: ratedA } }
  },
  mend: 'Fit the specified rating. A larger fuse lets the cable overheat; a smaller one blows without a fault.',
}

export const stuckOpen: Fault = {
  id: 'stuck-open',
  title: 'Contact stuck open',
  prior: 1,
  unit: '',
  scale: 'each',
  harm: 'stranded',
  places: (bench) => fittings(bench, ['switch', 'relay', 'stop']),
  change: (rig, at) => ({ ...rig, stuckOpen: withOne(rig.stuckOpen, at) }),
  mend: 'Operate it by hand and at its coil. Replace it if it stays open.',
}

/** Contacts that should open: relays when the engine stops, the main switch when it is turned off. */
export const stuckClosed: Fault = {
  id: 'stuck-closed',
  title: 'Contact stuck closed',
  prior: 1,
  unit: '',
  scale: 'each',
  harm: (_bench, at) => (at === 'main-switch' ? 'fire' : 'stranded'),
  places: (bench) =>
    fittings(bench, ['switch', 'relay']).filter(
      ({ at }) => at === 'main-switch' || bench.rig.network.relays.some(({ post }) => post === at),
    ),
  change: (rig, at) => ({ ...rig, stuckClosed: withOne(rig.stuckClosed, at) }),
  mend: 'Replace it: its contacts are welded. Find out which current welded them.',
}

export default [fuseOpen, wrongFuse, stuckOpen, stuckClosed]
