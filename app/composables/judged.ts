import { watchDebounced } from '@vueuse/core'
import { ref, shallowRef, watch, type ShallowRef } from 'vue'
import type { JobDocument } from '#core/job/document'
import type { RuleOverrides } from '#core/rules/rules'
import { useShop } from '../stores/shop'
import { judge, type Judged, type Judging } from '../utils/judgings'

/** A judging of a job that follows its changes: the last result, whether a newer one is on its way, and what went wrong. */
export function useJudged<K extends Judging>(what: K, job: () => JobDocument | null, rules: () => RuleOverrides) {
  const store = useShop()
  const result: ShallowRef<Judged<K> | null> = shallowRef(null)
  const pending = ref(false)
  const problem = ref('')
  let asked = 0
  const forget = (): void => {
    asked++
    result.value = null
    pending.value = false
  }
  watch([job, rules], ([now]) => { if (now) pending.value = true }, { immediate: true, flush: 'sync' })
  watchDebounced([job, rules], async ([now, shopRules]) => {
    if (!now) return
    const turn = ++asked
    try {
      const judged = await judge(what, now, shopRules, store.shop.units)
      if (turn !== asked) return
      result.value = judged
      problem.value = ''
    } catch (cause) {
      if (turn !== asked) return
      problem.value = (cause as Error).message
    }
    pending.value = false
  }, { debounce: 150, immediate: true })
  return { result, pending, problem, forget }
}
