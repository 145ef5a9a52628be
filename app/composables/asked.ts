import { watchDebounced } from '@vueuse/core'
import { computed, ref, shallowRef, type ShallowRef } from 'vue'
import type { JobDocument } from '#core/job/document'
import type { ShopSettings } from '#core/system/system'
import { theEngine, type EngineClient } from '../engine/client'
import { useShop } from '../stores/shop'

const settleMs = 60

/**
 * The engine's result for a job, following its changes: the last result, whether a newer one is on its way, and the
 * error.
 */
export function useAsked<T>(
  ask: (engine: EngineClient, job: JobDocument, shop: ShopSettings) => Promise<T>,
  job: () => JobDocument | null,
) {
  const store = useShop()
  const settings = computed<ShopSettings>(() => ({ rules: store.shop.rules, units: store.shop.units }))
  const result: ShallowRef<T | null> = shallowRef(null)
  const pending = ref(false)
  const problem = ref('')
  let asked = 0
  watchDebounced(
    [job, settings],
    async ([now, shop]) => {
      const turn = ++asked
      if (!now) {
        result.value = null
        pending.value = false
        return
      }
      pending.value = true
      try {
        const answer = await ask(theEngine(), now, shop)
        if (turn !== asked) return
        result.value = answer
        problem.value = ''
      } catch (cause) {
        if (turn === asked) problem.value = (cause as Error).message
      }
      if (turn === asked) pending.value = false
    },
    { debounce: settleMs, immediate: true },
  )
  return { result, pending, problem }
}
