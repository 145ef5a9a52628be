import { entryOf, present } from '#core/collections/held'
import { cableSizesMm2 } from '#core/physics/conductors'
import { takesRunSize, ohmAtSize, type Conductors } from './run-ohm'
import type { Run, WiringUnit } from './network'
import { runAmpacityA, shareOfWay } from './size'
import { heatingA } from './size-rules'
import type { Wiring } from './wiring'

/** The effect of another size of a run. */
export interface Size {
  readonly areaMm2: number
  readonly count: number
  readonly carriesA: number
  readonly lostV: number
  /** Whether it carries its current and its fuse's rating, and drops no more than its share of the limit. */
  readonly carries: boolean
  readonly loses: boolean
}

/** The reason for a size. */
export type Governs = 'fuse' | 'current' | 'voltage' | 'neighbour' | 'set' | 'found'

/** The figures of a run, shown next to the drawing. */
export interface RunFigures {
  readonly id: string
  readonly amps: number
  /** The case in which most flows, or why it must carry more than that. */
  readonly at: string | null
  readonly crankingA: number
  readonly carriesA: number | null
  /** Lost in the run itself there and back, V. */
  readonly lostV: number
  /** Voltage drop of its whole path there and back, V, and as a share: the limit applies to this. */
  readonly wayLostV: number
  readonly wayLostShare: number
  readonly allowedShare: number
  /** Voltage at the load at its end in the case with the most current, V; null if there is no load. */
  readonly leftV: number | null
  /** Heat lost in it, W. */
  readonly heatW: number
  readonly fuse: string | null
  readonly governs: Governs
  /** One size smaller, the size it has, one size larger. */
  readonly sizes: readonly Size[]
}

/** The figures of a run. */
export function figuresOf(run: Run, wiring: Wiring): RunFigures {
  const design = wiring.design(run)
  const flows = wiring.flowsA(run)
  const { nominalV } = wiring.ways.postAt(run.from)
  const fuse = run.role === 'cranking' ? null : wiring.ways.fuseOf(run)
  const fuseA = fuse?.fitting?.ratedA ?? 0
  const mustCarryA = Math.max(heatingA(design), fuseA)
  const allowed = wiring.dropShare(run)
  const lostV = flows * loopOhmOf(run, wiring, run)
  const wayLostV = flows * wayOhm(run, wiring)
  const holdsBack =
    run.areaMm2 !== null &&
    run.areaKnown !== 'sized' &&
    (runAmpacityA(run, run.areaMm2, run.count) < mustCarryA || lostV > allowed * nominalV)
  // With another size than one that is too thin more flows.
  const replaced = holdsBack ? wiring.replaced(run, null) : wiring
  const most = { fuseA, lostV: allowed * nominalV }
  const wiringAt = (areaMm2: number): Wiring => (areaMm2 === run.areaMm2 ? wiring : replaced)
  const sizes =
    run.areaMm2 === null
      ? []
      : around(run.areaMm2).map((areaMm2) => sizeAt(areaMm2, run, [wiring, wiringAt(areaMm2)], most))
  return {
    id: run.id,
    amps: flows,
    at: wiring.reasonOf(run),
    crankingA: design.crankingA,
    carriesA: run.areaMm2 === null ? null : runAmpacityA(run, run.areaMm2, run.count),
    lostV,
    wayLostV,
    wayLostShare: wayLostV / nominalV,
    allowedShare: allowed,
    leftV: leftAt(run, wiring),
    heatW: flows * lostV,
    fuse: fuse?.id ?? null,
    governs: governs(run, sizes, mustCarryA > heatingA(design)),
    sizes,
  }
}

/** The effect of another size of a run. @param there the resulting wiring */
function sizeAt(
  areaMm2: number,
  run: Run,
  [wiring, there]: readonly [Wiring, Wiring],
  most: { readonly fuseA: number; readonly lostV: number },
): Size {
  const { count } = run
  const { ownShare, fittingsOhm } = shareOfWay(run, wiring.ways)
  const ownFittingsOhm = run.fittingOhm + (wiring.ways.returnOf(run.id)?.fittingOhm ?? 0)
  const carriesA = runAmpacityA(run, areaMm2, count)
  const ohm = loopOhmOf(run, wiring, { areaMm2, count })
  const counted = there.flowsA(run) * (ohm - ownFittingsOhm + ownShare * fittingsOhm)
  return {
    areaMm2,
    count,
    carriesA,
    lostV: there.flowsA(run) * ohm,
    carries: carriesA >= Math.max(heatingA(there.design(run)), most.fuseA),
    loses: counted <= most.lostV * ownShare,
  }
}

/** Resistance of a run there and back, Ω: with its size, or with another size for it and its return. */
function loopOhmOf(run: Run, { ways, network: { cableC } }: Wiring, size: Conductors = run): number {
  const back = ways.returnOf(run.id)
  const isOwn = size.areaMm2 === run.areaMm2 && size.count === run.count
  const backOhm = back ? ohmAtSize(back, !isOwn && takesRunSize(back) ? size : back, cableC) : 0
  return ohmAtSize(run, size, cableC) + backOhm
}

/** Resistance of the whole way of a run, there and back, Ω. */
const wayOhm = (run: Run, wiring: Wiring): number =>
  wiring.ways.wayOf(run).reduce((sum, part) => sum + loopOhmOf(part, wiring), 0)

/** Voltage at the load at the end of a run: for a starter motor while it turns its engine. */
function leftAt(run: Run, wiring: Wiring): number | null {
  const { solved, network } = wiring
  const unit = network.units.find((one) => drawsAt(one)?.plus === run.to)
  const most =
    unit?.kind === 'starter'
      ? solved.cases.find(({ id }) => id === `cranking-${unit.id}`)
      : wiring.design(run).at
  if (!unit || !most) return null
  const { plus, minus } = present(drawsAt(unit))
  const { volts } = solved.in(most)
  return entryOf(volts, plus) - entryOf(volts, minus)
}

/** The terminals at which a unit draws: those of its input for a DC-DC; null if it does not. */
function drawsAt(unit: WiringUnit): { readonly plus: string; readonly minus: string } | null {
  if (unit.kind === 'dcdc') return { plus: unit.inPlus, minus: unit.inMinus }
  return unit.kind === 'load' || unit.kind === 'inverter' || unit.kind === 'starter' ? unit : null
}

/** The usual sizes next to one, itself between them. */
function around(areaMm2: number): number[] {
  const below = cableSizesMm2.findLast((size) => size < areaMm2)
  const above = cableSizesMm2.find((size) => size > areaMm2)
  return [below, areaMm2, above].filter((size) => size !== undefined)
}

function governs({ areaKnown, areaMm2 }: Run, sizes: readonly Size[], byFuse: boolean): Governs {
  if (areaKnown === 'set' || areaKnown === 'found') return areaKnown
  const smaller = sizes.find((size) => size.areaMm2 < (areaMm2 ?? 0))
  if (smaller && !smaller.carries) return byFuse ? 'fuse' : 'current'
  return smaller && !smaller.loses ? 'voltage' : 'neighbour'
}
