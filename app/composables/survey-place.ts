import { useSessionStorage, whenever } from '@vueuse/core'
import type { Ref } from 'vue'
import { fieldAt, type FieldPath } from '#core/job/document'
import { partKinds, type PartKindId } from '#core/job/fields'

/** Whether a page that was loaded anew has gone on where it was; coming from another view it begins afresh. */
let hasGoneOn = false

/**
 * Where the survey of a job is, in this window: a page that is loaded anew goes on at that station, in that
 * value.
 */
export function useSurveyPlace(
  jobId: string,
  ready: Ref<boolean>,
  station: Ref<PartKindId | null>,
  goTo: (at: PartKindId | FieldPath) => void,
): void {
  const view = useView()
  const place = useSessionStorage<{ station?: PartKindId; field?: FieldPath }>(
    `jovial-anchor.place.${jobId}`,
    {},
  )
  whenever(
    ready,
    () => {
      const [loaded] = performance.getEntriesByType('navigation')
      const isLoadedAnew = !hasGoneOn && loaded && new URL(loaded.name).pathname === location.pathname
      hasGoneOn = true
      const { station: kind, field } = place.value
      if (isLoadedAnew && kind && kind in partKinds) goTo(field && fieldAt(field) ? field : kind)
    },
    { once: true, flush: 'post', immediate: true },
  )
  watch([station, () => view.inHand], ([kind, field]) => {
    place.value = kind ? { station: kind, ...(field?.startsWith(`${kind}/`) ? { field } : {}) } : {}
  })
}
