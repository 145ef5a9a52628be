import { defineStore } from 'pinia'
import { computed, shallowRef, watch } from 'vue'
import { assess } from '#core/assessment/assess'
import { drawLanes } from '#core/compare/instruments'
import { applyRemedy, sameRemedy, type RemedyRef } from '#core/remedies/catalogue'
import { completeLinks } from '#core/system/system'
import { useJudged } from '../composables/judged'
import { useJob } from './job'
import { useShop } from './shop'

/** What is judged of the job on the bench: its verdicts, and those that would follow from a remedy that is tried. */
export const useJudging = defineStore('judging', () => {
  const job = useJob()
  const store = useShop()
  const rules = computed(() => store.shop.rules)
  const trial = shallowRef<RemedyRef | null>(null)

  /** What takes a run comes a moment later, out of a worker; until then what it was before stands. */
  const ahead = useJudged('ahead', () => job.document, () => rules.value)
  const assessment = computed(() => job.document && assess(job.document, rules.value, ahead.result.value ?? []))
  const drawings = computed(() => (job.document && assessment.value ? drawLanes(job.document, rules.value, assessment.value) : []))
  const tried = computed(() => (trial.value && job.document ? applyRemedy(completeLinks(job.document), trial.value) : null))
  const triedAhead = useJudged('ahead', () => tried.value, () => rules.value)
  const trialAssessment = computed(() => tried.value && assess(tried.value, rules.value, triedAhead.result.value ?? ahead.result.value ?? []))

  function tryRemedy(remedy: RemedyRef | null): void {
    triedAhead.forget()
    trial.value = remedy && trial.value && sameRemedy(remedy, trial.value) ? null : remedy
  }
  // A trial is of the job as it stood: the next change ends it.
  watch(() => job.document, () => { trial.value = null }, { flush: 'sync' })
  watch(() => job.id, () => ahead.forget(), { flush: 'sync' })

  return { rules, assessment, drawings, trial, trialAssessment, tryRemedy, looksAhead: ahead.pending, aheadProblem: ahead.problem }
})
