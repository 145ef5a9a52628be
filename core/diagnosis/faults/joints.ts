import { withId } from '#core/collections/held'
import { sizedOhm } from '#core/wiring/run-ohm'
import type { Run } from '#core/wiring/network'
import { cableSizesMm2 } from '#core/physics/conductors'
import { charsFromW, harmOfJoint, type Harm } from '#core/commissioning/harm'
import { withAdded } from '#core/commissioning/parameters'
import { postName, type Bench } from '#core/commissioning/tests/make'
import { lugTestId, pinsTestId, plugOf } from '#core/commissioning/tests/looks'
import { sizesBeside, timesBetween, withOne, type Fault, type FaultPlace } from './fault'

/** A run in which less flows at most shows no poor joint and takes no harm by one, A. */
const leastA = 1
/**
 * A joint is poor from this voltage drop at the current of its run, V of 12, or if it chars its surroundings; up to
 * this drop.
 */
const costsV = [0.1, 3] as const
/** Wrong cables are at most this many standard sizes too thin or too thick. */
const sizesOff = [3, 2] as const

export const runWhere = ({ rig: { network } }: Bench, run: Run): string =>
  `in ${run.number} (${postName(network, run.from)} – ${postName(network, run.to)})`

/** The largest current of a run while a test is made, A. */
function mostA({ states, solved }: Bench, run: Run): number {
  return Math.max(
    0,
    ...states
      .filter(
        ({ at, doing }) => doing.kind === 'nothing' && (at.kind === 'cranking') === (run.role === 'cranking'),
      )
      .map((state) => Math.abs(solved(state).amps.get(run.id) ?? 0)),
  )
}

/** Harm of this extra resistance in a run, Ω. */
function harmOfRun(bench: Bench, at: string, ohm: number): Harm {
  const run = withId(bench.rig.network.runs, at)
  return harmOfJoint(ohm, mostA(bench, run), bench.rig.nominalV)
}

const flowing = (bench: Bench): { run: Run; amps: number }[] =>
  bench.rig.network.runs.map((run) => ({ run, amps: mostA(bench, run) })).filter(({ amps }) => amps >= leastA)

const isMetal = ({ areaMm2, isStud }: Run): boolean => areaMm2 === null && !isStud

function poorAt(bench: Bench, wanted: (run: Run) => boolean): FaultPlace[] {
  const scale = bench.rig.nominalV / 12
  return flowing(bench)
    .filter(({ run }) => wanted(run))
    .map(({ run, amps }) => ({
      at: run.id,
      where: runWhere(bench, run),
      sizes: timesBetween(
        1000 * Math.min((costsV[0] * scale) / amps, charsFromW / amps ** 2),
        (1000 * costsV[1] * scale) / amps,
      ),
    }))
}

/**
 * Share of poor joints that are loose, which a torque wrench finds; the others are bad crimps (engineering default).
 */
const looseShare = 0.7
/** Most corroded pins are seen once the plug is pulled (engineering default). */
const dullShare = 0.8

const poorJoint: Fault = {
  id: 'resistance',
  title: 'Poor joint',
  prior: 3,
  unit: 'mΩ',
  scale: 'times',
  harm: (bench, at, mOhm) => harmOfRun(bench, at, mOhm / 1000),
  places: (bench) => poorAt(bench, (run) => !isMetal(run)),
  change: (rig, at, mOhm) => withAdded(rig, at, mOhm / 1000),
  onRound: {
    share: looseShare,
    test: lugTestId,
    mark: (rig, at) => ({ ...rig, loose: withOne(rig.loose, at) }),
  },
  mend: 'Undo both lugs, clean them, check the crimps, and tighten to the maker’s torque.',
}

const poorReturn: Fault = {
  id: 'chassis-return',
  title: 'Poor chassis return',
  prior: 4,
  unit: 'mΩ',
  scale: 'times',
  harm: (bench, at, mOhm) => harmOfRun(bench, at, mOhm / 1000),
  places: (bench) => poorAt(bench, isMetal),
  change: (rig, at, mOhm) => withAdded(rig, at, mOhm / 1000),
  mend: 'Clean both ends to bare metal, or run a separate negative cable.',
}

const plugPin: Fault = {
  id: 'plug-pin',
  title: 'Corroded plug pin',
  prior: 4,
  unit: 'mΩ',
  scale: 'times',
  harm: (bench, at, mOhm) => harmOfRun(bench, at, mOhm / 1000),
  places: (bench) => poorAt(bench, (run) => !isMetal(run) && plugOf(bench.rig.network, run) !== null),
  change: (rig, at, mOhm) => withAdded(rig, at, mOhm / 1000),
  onRound: {
    share: dullShare,
    test: pinsTestId,
    mark: (rig, at) => ({ ...rig, corroded: withOne(rig.corroded, at) }),
  },
  mend: 'Pull the plug. Clean pins and sockets, or fit new ones, and grease them.',
}

export const broken: Fault = {
  id: 'open-run',
  title: 'Open circuit',
  prior: 0.5,
  unit: '',
  scale: 'each',
  harm: 'stranded',
  places: (bench) =>
    flowing(bench)
      .filter(({ run }) => !isMetal(run))
      .map(({ run }) => ({ at: run.id, where: runWhere(bench, run) })),
  change: (rig, at) => withAdded(rig, at, Infinity),
  mend: 'Look for a lug that is not connected, or a cut cable.',
}

const wrongSize: Fault = {
  id: 'wrong-size',
  title: 'Wrong cable size',
  prior: 1,
  unit: 'mm²',
  scale: 'each',
  harm: ({ rig: { network } }, at, areaMm2) =>
    areaMm2 < (withId(network.runs, at).areaMm2 ?? 0) ? 'fire' : 'nuisance',
  places: (bench) =>
    flowing(bench)
      .filter(({ run }) => run.state === 'new')
      .flatMap(({ run }) => {
        const { areaMm2 } = run
        return areaMm2 === null
          ? []
          : [
              {
                at: run.id,
                where: runWhere(bench, run),
                sizes: sizesBeside(cableSizesMm2, areaMm2, sizesOff),
              },
            ]
      }),
  change: (rig, at, areaMm2) => {
    const run = withId(rig.network.runs, at)
    const { cableC } = rig.network
    const more = sizedOhm(run, cableC, { areaMm2, count: run.count }) - sizedOhm(run, cableC)
    return { ...withAdded(rig, at, more), printedMm2: { ...rig.printedMm2, [at]: areaMm2 } }
  },
  mend: 'Replace a thinner cable, or protect it with a smaller fuse. Enter a thicker cable as fitted.',
}

export default [poorJoint, poorReturn, plugPin, broken, wrongSize]
