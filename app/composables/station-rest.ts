import { isAsked, partsOf, type FieldPath, type JobDocument } from '#core/job/document'
import { partKinds, usualHow, type Fields, type Known, type PartKindId } from '#core/job/fields'
import { useEntering } from './entering'

/** The assumed values of a station by their paths. */
function assumedIn(job: JobDocument, station: PartKindId): [path: FieldPath, value: unknown][] {
  const fields: Fields = partKinds[station].fields
  return partsOf(job, station).flatMap(({ path, part }) =>
    Object.entries(fields).flatMap(([name, field]): [path: FieldPath, value: unknown][] => {
      const known = part[name] as Known<unknown> | undefined
      const isOpen = known?.value != null && known.how === 'assumed' && isAsked(part, field)
      return isOpen && usualHow(field) !== 'assumed' ? [[`${path}/${name}`, known.value]] : []
    }),
  )
}

/**
 * The values that an open station began with as assumed, and that still are: one press confirms all. Typical values
 * that are filled in later do not count: nobody has looked at them.
 */
export function useStationRest(station: () => PartKindId) {
  const bench = useJob()
  const { confirmAll } = useEntering()
  const atFirst = shallowRef<ReadonlySet<FieldPath>>(new Set())
  watch(
    [station, () => bench.id, () => bench.document !== null],
    () =>
      (atFirst.value = new Set(
        bench.document ? assumedIn(bench.document, station()).map(([path]) => path) : [],
      )),
    { immediate: true },
  )
  const open = computed(() =>
    bench.document ? assumedIn(bench.document, station()).filter(([path]) => atFirst.value.has(path)) : [],
  )
  return {
    /** How many there were when the station opened. */
    began: computed(() => atFirst.value.size),
    confirmable: computed(() => open.value.length),
    confirmRest: () => {
      confirmAll(open.value)
    },
  }
}
