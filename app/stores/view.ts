import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { openQuestions } from '#core/job/beginning'
import type { FieldPath } from '#core/job/document'
import type { How } from '#core/job/fields'
import { useJob } from './job'
import { useJudging } from './judging'

/** The shown parts of the bench. */
export const useView = defineStore('view', () => {
  const job = useJob()
  const judging = useJudging()
  const selected = ref<string | null>(null)
  /** The selected check, otherwise the deciding one. */
  const selectedCheck = computed(() => {
    const { checks = [] } = judging.assessment ?? {}
    const { decidedBy = null } = judging.found ?? {}
    return (
      checks.find((c) => c.key === selected.value) ??
      checks.find((c) => c.key === decidedBy) ??
      checks[0] ??
      null
    )
  })
  /** Jobs whose battery is left open for now. */
  const batteryLeftOpen = ref(new Set<string>())
  /** Whether the job still has to answer the questions that begin it. */
  const isBeginning = computed(() => {
    const open = job.document ? openQuestions(job.document) : []
    return open.some((question) => question !== 'battery' || !batteryLeftOpen.value.has(job.id))
  })
  const leaveBatteryOpen = (): unknown => job.id && batteryLeftOpen.value.add(job.id)
  /** The requested field: its station shows it even if it is hidden. */
  const wanted = ref<FieldPath | null>(null)
  /** The source of the next values: set once, and valid for all later ones. Null: the usual source of each field. */
  const source = ref<How | null>(null)
  /** The field that is being filled in. */
  const inHand = ref<FieldPath | null>(null)
  /** The dialog that is open over the view. */
  const dialog = ref<'find' | 'keys' | 'choice' | null>(null)
  /** Unusual values that someone looked at and kept. */
  const kept = ref(new Set<string>())
  watch(
    () => job.id,
    () => {
      selected.value = null
      inHand.value = null
      source.value = null
      kept.value.clear()
    },
    { flush: 'sync' },
  )
  return { selected, selectedCheck, wanted, source, inHand, dialog, kept, isBeginning, leaveBatteryOpen }
})
