import { partsOf, type PartRef } from '#core/job/document'
import { partKinds, type Field, type PartKind, type PartKindId } from '#core/job/fields'

/** A part of a station with its asked fields. */
export interface StationPart extends PartRef {
  /** Every asked field in one list: those that were folded away come last, and stay where they are. */
  readonly rows: readonly [string, Field][]
  readonly away: ReadonlySet<string>
  /** How many of the asked fields are folded away. */
  readonly count: number
}

/** The parts of a station and their hidden fields. */
export function useStationParts(kind: () => PartKindId) {
  const bench = useJob()
  const judging = useJudging()
  const view = useView()
  const kindInfo = computed<PartKind>(() => partKinds[kind()])
  const refs = computed(() => (bench.document ? partsOf(bench.document, kind()) : []))
  /** Number of checks that depend on an unmeasured value, by its path. */
  const bearing = computed(() => new Map(judging.found?.measureNext.map((m) => [m.path, m.bearsOn.length])))
  /**
   * The folded fields of each part: decided when the station opens, or the part is added, and changed only by the
   * person.
   */
  const folded = new Map<string, ReadonlySet<string>>()
  const unfolded = ref(new Set<string>())
  function foldedOf({ path, part }: PartRef): ReadonlySet<string> {
    const known =
      folded.get(path) ?? foldedNames(kind(), part, (name) => bearing.value.has(`${path}/${name}`))
    folded.set(path, known)
    return known
  }
  /** Shows hidden fields and moves to them, or hides them. */
  function toggle(path: string, { currentTarget }: Event) {
    if (unfolded.value.delete(path)) return
    unfolded.value.add(path)
    const button = currentTarget as HTMLElement
    void nextTick(() => nextStep(button.closest('[data-sheet]')!, button))
  }
  const parts = computed(() =>
    refs.value.map((ref): StationPart => {
      const [asked, away] = [askedFields(kind(), ref.part), foldedOf(ref)]
      return {
        ...ref,
        rows: asked.toSorted(([a], [b]) => Number(away.has(a)) - Number(away.has(b))),
        away,
        count: asked.filter(([name]) => away.has(name)).length,
      }
    }),
  )
  watch(
    () => view.wanted,
    (path) => {
      const ref = refs.value.find((one) => path?.startsWith(`${one.path}/`))
      if (ref && foldedOf(ref).has(path!.slice(ref.path.length + 1))) unfolded.value.add(ref.path)
    },
    { immediate: true },
  )
  /** Possible owners of a part of this station. */
  const targets = computed(() =>
    bench.document
      ? (kindInfo.value.refers?.to ?? []).flatMap((to) => partsOf(bench.document!, to as PartKindId))
      : [],
  )
  /** Adds a part, of the first thing that has none yet. */
  function add(): string {
    const { refers } = kindInfo.value
    const served = new Set(refers ? refs.value.map(({ part }) => part[refers.field]) : [])
    const target = targets.value.find(({ path }) => !served.has(path)) ?? targets.value[0]
    return bench.addPart(
      kind() as Parameters<typeof bench.addPart>[0],
      refers && target ? { [refers.field]: target.path } : {},
    )
  }
  return { kindInfo, parts, targets, bearing, unfolded, toggle, add }
}
