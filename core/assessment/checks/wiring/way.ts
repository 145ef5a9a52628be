import type { Run } from '#core/wiring/network'
import { ohmAtSize, type Conductors } from '#core/wiring/run-ohm'
import { isSizeUnknown } from '#core/wiring/words'
import type { Wiring } from '#core/wiring/wiring'
import type { System } from '#core/system/system'

/** One-way length of a run, m: asked for if nobody has measured it, and where its size is known. */
function lengthM(run: Run, system: System): number {
  if (run.lengthKnown !== 'open' || isSizeUnknown(run)) return run.lengthM
  const cable = system.many.conductors.find(({ $path }) => $path === run.cable)
  // A plug parts a cable in two runs, each of its share.
  if (cable) return (cable.lengthM * run.lengthM) / Number(cable.$usual('lengthM'))
  return system.part('runs', `runs/${run.id}`)?.lengthM ?? run.lengthM
}

/** One-way length of the return of a run of a length, m: its own where someone set it, else it goes with the run. */
const returnM = (back: Run, run: Run, length: number): number =>
  back.lengthKnown === 'open' ? (length * back.lengthM) / run.lengthM : back.lengthM

/** Sizes by the ids of the runs that are to have them. */
type Sizes = ReadonlyMap<string, Conductors>
const presentSizes: Sizes = new Map()

/** The voltage lost on the path of a run, there and back, and the loss with other sizes. */
export class Way {
  private readonly parts: readonly {
    readonly run: Run
    readonly lengthM: number
    readonly back: Run | null
    readonly backM: number
  }[]
  readonly amps: number

  constructor(
    private readonly run: Run,
    private readonly wiring: Wiring,
    private readonly system: System,
  ) {
    this.amps = wiring.flowsA(run)
    this.parts = wiring.ways.wayOf(run).map((part) => {
      const length = lengthM(part, system)
      const back = wiring.ways.returnOf(part.id)
      return { run: part, lengthM: length, back, backM: back ? returnM(back, part, length) : 0 }
    })
  }

  /** Resistance there and back, Ω: as it is, or with runs of other sizes. */
  ohm(sizes: Sizes = presentSizes): number {
    const { cableC } = this.wiring.network
    const ohmOf = (run: Run, length: number): number =>
      ohmAtSize(run, sizes.get(run.id) ?? run, cableC, length)
    return this.parts.reduce(
      (sum, { run, lengthM: length, back, backM }) =>
        sum + ohmOf(run, length) + (back ? ohmOf(back, backM) : 0),
      0,
    )
  }
  get lostV(): number {
    return this.amps * this.ohm()
  }
  /** Whether the loss with runs of other sizes stays within this limit, V, at the present current. */
  keepsWithin(mostV: number, sizes: Sizes): boolean {
    return this.amps * this.ohm(sizes) <= mostV
  }
  /** Whether the loss stays within the limit if the run has another size, at the resulting current. */
  keepsWithinAt(mostV: number, size: Conductors): boolean {
    if (!this.keepsWithin(mostV, this.sizedTo(size))) return false
    const other = this.wiring.replaced(this.run, size)
    return new Way(other.ways.runAt(this.run.id), other, this.system).lostV <= mostV
  }
  /** The run itself of a size, with the same cable beyond a plug and the returns that are laid with them. */
  sizedTo(size: Conductors): Sizes {
    return new Map(this.wiring.replacedWith(this.run).map(({ id }) => [id, size]))
  }
  /** Returns whose size or length was set by hand. */
  get returnsByHand(): readonly Run[] {
    return this.parts.flatMap(({ back }) =>
      back && [back.areaKnown, back.lengthKnown].includes('set') ? [back] : [],
    )
  }
  get lengthM(): number {
    return this.parts.reduce((sum, { lengthM: length }) => sum + length, 0)
  }
  get hasReturn(): boolean {
    return this.parts.some(({ back }) => back !== null)
  }
  /**
   * Whether the whole way is checked with this run: the longest, or, if nobody knows that one, the longest that was
   * measured or set.
   */
  get isJudgedHere(): boolean {
    const runs = this.parts.map(({ run }) => run)
    const longest = longestOf(runs)
    const told = isSizeUnknown(longest) ? runs.filter(({ areaKnown }) => areaKnown !== 'sized') : []
    return (told.length > 0 ? longestOf(told) : longest).id === this.run.id
  }
}

const longestOf = (runs: readonly Run[]): Run => runs.reduce((a, b) => (b.lengthM > a.lengthM ? b : a))
