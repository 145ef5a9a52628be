import { dequal } from 'dequal/lite'
import type { Ref } from 'vue'

/** The columns of the bench, of which a phone shows one. */
export type BenchColumn = 'walk' | 'paths' | 'why'
const columns: readonly unknown[] = ['walk', 'paths', 'why'] satisfies BenchColumn[]
const isColumn = (value: unknown): value is BenchColumn => columns.includes(value)

/**
 * Keeps the open station and the column in the address: Back goes back one step within the job, and a link leads
 * to the same place.
 */
export function useBenchSteps(station: Ref<StationId | null>, column: Ref<BenchColumn>): void {
  const [route, router] = [useRoute(), useRouter()]
  const bench = route.path
  const place = (): Record<string, string> => ({
    ...(station.value && { station: station.value }),
    ...(column.value !== 'paths' && { column: column.value }),
  })
  /** Steps that are on their way into the address: it must not be read before they are there. */
  let pending = 0
  function read(): void {
    const { station: at, column: shown } = route.query
    station.value = isStation(at) ? at : null
    column.value = isColumn(shown) ? shown : 'paths'
  }
  async function write(): Promise<void> {
    if (dequal(place(), { ...route.query }) || route.path !== bench) return
    pending++
    await router.push({ query: place() })
    pending--
  }
  read()
  watch([station, column], write)
  watch(
    () => route.query,
    () => {
      if (pending === 0 && route.path === bench) read()
    },
  )
}
