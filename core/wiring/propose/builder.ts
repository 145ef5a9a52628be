import { highestChargeV } from '../charge-voltage'
import type { FieldPath, PartPath } from '#core/job/document'
import { tableAirC } from '#core/physics/conductors'
import { fuseInterruptA, type FuseFamily } from '#core/physics/fuses'
import type { View } from '#core/system/scene'
import type { System } from '#core/system/system'
import type {
  Fitting,
  ValueSource,
  SignalLine,
  LineKind,
  Network,
  FittingPlace,
  Post,
  PostKind,
  Role,
  Run,
  PartState,
  Stud,
  WiringUnit,
} from '../network'

type Cable = View<'conductors'>

/** A run before it is sized: its area is null while nobody knows it. */
export type DraftRun = Omit<Run, 'areaMm2' | 'areaKnown'> & {
  readonly areaMm2: number | null
  readonly areaKnown: ValueSource | null
}
/** A network before sizing: unknown ratings of fuses, switches and bars are null. */
export type WiringDraft = Omit<Network, 'runs'> & { readonly runs: readonly DraftRun[] }

/** Typical lengths of short runs that nobody measured, m. */
export const usualM = {
  lead: 0.15,
  stub: 0.15,
  main: 0.4,
  link: 0.3,
  earth: 0.6,
  bond: 1,
  crank: 1.2,
} as const

/** One-way length of an unmeasured run, m: the middle of the plausible range. */
const openM = 3.25

interface PostOf {
  readonly name: string
  readonly pole?: Post['pole']
  readonly of?: PartPath | null
  readonly state?: PartState
  readonly opposite: string
  readonly nominalV: number
  readonly place?: FittingPlace | null
}
interface FittingOf extends PostOf {
  readonly reason: string
  readonly ratedA?: number | null
  /** Whether the rating is a guess that a look would settle. */
  readonly isRatingOpen?: boolean
  readonly family?: FuseFamily | null
  readonly aicA?: number | null
  readonly mostMm2?: number | null
  readonly isOfOneBattery?: boolean
  readonly isAtFarEnd?: boolean
}
interface RunOf {
  readonly role: Role
  readonly state?: PartState
  readonly of?: PartPath | null
  readonly returnOf?: string | null
  readonly cable?: Cable | null
  /** Share of the cable's length that this run is. */
  readonly share?: number
  /** Typical length of a short run, m. */
  readonly usualM?: number
  readonly leastA?: number
  readonly like?: string
  readonly side?: Run['side']
  /** Whether chassis or hull is the conductor. */
  readonly byChassis?: boolean
}

/** Fields of a fitting that count as set by hand. */
const setFields = ['family', 'ratedA', 'aicA', 'distanceMm', 'sheathed', 'standsOn', 'place', 'stud'] as const

/** Area of a run and how it is known: as set by hand, else as found. The chassis has none. */
function areaOf(
  setMm2: number | null,
  cable: Cable | null,
  byChassis: boolean,
): Pick<DraftRun, 'areaMm2' | 'areaKnown'> {
  if (byChassis) return { areaMm2: null, areaKnown: 'found' }
  if (setMm2 !== null) return { areaMm2: setMm2, areaKnown: 'set' }
  const foundMm2 = cable && cable.$entered('areaMm2') !== null ? cable.areaMm2 : null
  return { areaMm2: foundMm2, areaKnown: foundMm2 === null ? null : 'found' }
}

/** A post without a fitting. */
const bare = (
  id: string,
  kind: PostKind,
  { name, pole = 'positive', of = null, state = 'new', opposite, nominalV, place = null }: PostOf,
): Post => ({
  id,
  kind,
  intended: kind,
  name,
  pole,
  of,
  state,
  place,
  opposite,
  nominalV,
  fitting: null,
  stud: null,
  set: [],
})

/** Collects posts, runs and units, and applies values set by hand. */
export class Builder {
  /** By their ids, in the order in which they were put in. */
  readonly posts = new Map<string, Post>()
  readonly runs = new Map<string, DraftRun>()
  readonly units: WiringUnit[] = []
  readonly lines: SignalLine[] = []
  readonly relays: { readonly post: string; readonly alternator: string }[] = []
  /** Values set by hand, by path. */
  private readonly handOn: ReadonlyMap<PartPath, View<'runs'> | View<'fittings'>>
  private readonly counts = { W: 0, F: 0, S: 0, P: 0, L: 0 }

  /** @param isNew whether a part of the job is fitted, or fitted in place of another */
  constructor(
    readonly system: System,
    readonly isNew: (path: PartPath | FieldPath) => boolean,
  ) {
    const { runs, fittings } = system.many
    this.handOn = new Map([...runs, ...fittings].map((view) => [view.$path, view]))
  }

  /** Values set by hand of a run or a fitting, by field; null if it is as proposed. */
  entered(path: PartPath): <T>(field: string) => T | null {
    const hand = this.handOn.get(path)
    return <T>(field: string) => (hand?.$entered(field) as T | null | undefined) ?? null
  }
  /** Whether a post exists, and the part there is not left out. */
  has(post: string): boolean {
    const there = this.posts.get(post)
    return there !== undefined && there.kind !== 'joint'
  }

  stateOf(path: PartPath | FieldPath): PartState {
    return this.isNew(path) ? 'new' : 'found'
  }

  /** The next number of a kind: `W1`. */
  private next(letter: keyof Builder['counts']): string {
    return `${letter}${++this.counts[letter]}`
  }

  post(id: string, kind: PostKind, at: PostOf): string {
    this.posts.set(id, bare(id, kind, at))
    return id
  }

  /** A post with a fuse, switch, relay, stop, shunt, bar or plug. */
  fitting(id: string, kind: PostKind, at: FittingOf): string {
    const { ratedA = null, family = null } = at
    const entered = this.entered(`fittings/${id}`)
    if (entered('absent') === 'yes') {
      this.posts.set(id, {
        ...bare(id, 'joint', { ...at, name: `${at.name}, left out` }),
        intended: kind,
      })
      return id
    }
    const fitting = this.fittingOf(id, kind, at)
    const set = setFields.filter((field) => entered(field) !== null)
    // A fuse of another family or rating than was found is a new one.
    const isOther = fitting.family !== family || fitting.ratedA !== ratedA
    const proposed = bare(id, kind, at)
    this.posts.set(id, {
      ...proposed,
      state: proposed.state === 'found' && isOther ? 'new' : proposed.state,
      place: entered<FittingPlace>('place') ?? proposed.place,
      stud: entered<Stud>('stud'),
      fitting,
      set,
    })
    return id
  }

  /** The kind of a fitting: as set by hand, else as proposed. */
  private fittingOf(id: string, kind: PostKind, at: FittingOf): Fitting {
    const { ratedA = null, isRatingOpen = false, family = null, aicA = null, mostMm2 = null } = at
    const entered = this.entered(`fittings/${id}`)
    const ownFamily = entered<FuseFamily>('family') ?? family
    const usualAicA = ownFamily ? fuseInterruptA(ownFamily, highestChargeV(at)) : null
    return {
      number: this.numberOf(kind),
      family: ownFamily,
      ratedA: entered<number>('ratedA') ?? ratedA,
      isRatingOpen: isRatingOpen && entered('ratedA') === null,
      aicA: entered<number>('aicA') ?? aicA ?? usualAicA,
      mostMm2,
      distanceMm: entered<number>('distanceMm'),
      sheathed: entered<string>('sheathed') === 'yes',
      isOfOneBattery: at.isOfOneBattery ?? false,
      isAtFarEnd: at.isAtFarEnd ?? false,
      reason: at.reason,
    }
  }

  /** The next number of a fitting; a bar has none. */
  private numberOf(kind: PostKind): string {
    if (kind === 'bar') return ''
    return this.next(kind === 'fuse' ? 'F' : kind === 'plug' ? 'P' : 'S')
  }

  run(id: string, from: string, to: string, at: RunOf): void {
    const { role, state = 'new', of = null, side = null } = at
    const { cable = null, returnOf = null, byChassis = false } = at
    const entered = this.entered(`runs/${id}`)
    const pair = returnOf === null ? undefined : this.runs.get(returnOf)
    const [lengthM, lengthKnown] = this.lengthOf(entered<number>('lengthM'), at, pair)
    const measured = entered<number>('milliohm')
    this.runs.set(id, {
      id,
      number: pair ? `${pair.number}−` : this.next('W'),
      role,
      from,
      to,
      state: cable && entered('areaMm2') === null ? this.stateOf(`${cable.$path}/areaMm2`) : state,
      of,
      returnOf,
      cable: cable?.$path ?? null,
      lengthM,
      lengthKnown,
      isStud: false,
      ...areaOf(entered<number>('areaMm2'), cable, byChassis),
      ...this.makeOf(id, cable),
      ...this.heatAlong(id, { role, of, from, to, cable }),
      fittingOhm: 0,
      measuredOhm: measured === null ? null : measured / 1000,
      leastA: at.leastA ?? pair?.leastA ?? 0,
      like: at.like ?? returnOf,
      side,
    })
  }

  /** How a run is made: as set by hand, else as its cable was surveyed. */
  private makeOf(
    id: string,
    cable: RunOf['cable'] = null,
  ): Pick<Run, 'count' | 'shortestM' | 'material' | 'insulationC' | 'bundled'> {
    const entered = this.entered(`runs/${id}`)
    return {
      count: entered<number>('count') ?? 1,
      shortestM: entered<number>('shortestM'),
      material: entered<'copper' | 'aluminium'>('material') ?? cable?.material ?? 'copper',
      insulationC: Number(entered<string>('insulationC') ?? cable?.insulationC ?? 90),
      bundled: entered<number>('bundled') ?? cable?.bundled ?? 1,
    }
  }

  /** How hot it is along a run: as set by hand or surveyed, else by where it goes. */
  private heatAlong(
    id: string,
    {
      role,
      of,
      from,
      to,
      cable,
    }: Pick<Run, 'role' | 'of' | 'from' | 'to'> & { readonly cable: Cable | null },
  ): Pick<Run, 'engineSpace' | 'airC'> {
    const entered = this.entered(`runs/${id}`)
    const isAtEngine = this.standsAtEngine(from) || this.standsAtEngine(to)
    const engineSpace =
      entered('engineSpace') ?? cable?.$entered('engineSpace') ?? (isAtEngine ? 'yes' : 'no')
    const surveyedC = cable?.$entered('airC') as number | null | undefined
    return {
      engineSpace: engineSpace === 'yes',
      airC: entered<number>('airC') ?? surveyedC ?? this.airAlong({ role, of }),
    }
  }

  private standsAtEngine(post: string): boolean {
    return this.posts.get(post)?.place === 'engine'
  }

  /** Hottest air along a run, °C: the main leads are at the battery. */
  private airAlong({ role, of }: Pick<Run, 'role' | 'of'>): number {
    const atBank = role === 'main' || of === 'candidate'
    return atBank ? (this.system.one.place.$usual('hottestC') as number) : tableAirC
  }

  private lengthOf(
    setM: number | null,
    { cable, share = 1, usualM: usual }: Pick<RunOf, 'cable' | 'share' | 'usualM'>,
    pair: DraftRun | undefined,
  ): [number, ValueSource] {
    if (setM !== null) return [setM, 'set']
    if (cable) {
      const isKnown = cable.$settled('lengthM') && cable.$entered('lengthM') !== null
      return [cable.lengthM * share, isKnown ? 'found' : 'open']
    }
    if (usual !== undefined) return [usual, 'usual']
    return pair ? [pair.lengthM, pair.lengthKnown] : [openM, 'open']
  }

  /** Where the return of a run lands: on the bar, unless it was found on the battery’s own post. */
  landingOf(id: string, bar: string): string {
    return this.entered(`runs/${id}`)('landsOn') === 'battery' ? 'bank-minus' : bar
  }

  /** Whether the current of a run comes back by the chassis, as was set or surveyed. */
  returnsByChassis(id: string, cable: Cable | null): boolean {
    return (this.entered(`runs/${id}`)('returnBy') ?? cable?.returnBy ?? 'cable') === 'chassis'
  }

  unit(unit: WiringUnit): void {
    this.units.push(unit)
  }

  line(
    kind: LineKind,
    {
      of,
      name,
      fuseA = null,
      state = 'new',
    }: {
      readonly of: PartPath
      readonly name: string
      readonly fuseA?: number | null
      readonly state?: PartState
    },
  ): void {
    const id = `line-${this.lines.length + 1}`
    this.lines.push({ id, number: this.next('L'), kind, of, name, fuseA, state })
  }
}
