import { useSessionStorage, whenever } from '@vueuse/core'
import type { Ref } from 'vue'
import { fieldAt, type FieldPath } from '#core/job/document'

/** The field of a job that last had the focus in this window; empty for none. */
export const useFieldInHand = (jobId: string) =>
  useSessionStorage<FieldPath | ''>(`jovial-anchor.field.${jobId}`, '')

/** The station of a field or a part. */
export const stationOf = (path: FieldPath): StationId => path.split('/')[0] as StationId

/** Returns to the last focused field if the address names its station. */
export function useSurveyPlace(
  jobId: string,
  ready: Ref<boolean>,
  station: Ref<StationId | null>,
  goTo: (at: StationId | FieldPath) => void,
): void {
  const view = useView()
  const field = useFieldInHand(jobId)
  whenever(
    ready,
    () => {
      if (!station.value) return
      const isThere = field.value !== '' && stationOf(field.value) === station.value && fieldAt(field.value)
      goTo(isThere ? field.value : station.value)
    },
    { once: true, flush: 'post', immediate: true },
  )
  watch([station, () => view.inHand], ([at, path]) => {
    field.value = at && path && stationOf(path) === at ? path : ''
  })
}
