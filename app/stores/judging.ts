import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch, type ShallowRef } from 'vue'
import { completeJob } from '#core/job/complete'
import type { JobDocument } from '#core/job/document'
import { applyChanges, inverseOf } from '#core/job/changes'
import { changedFields } from '#core/job/shown'
import { joinText, writerIn } from '#core/units/format'
import { applyRemedy, sameRemedy, type RemedyRef } from '#core/remedies/catalogue'
import type { ShopSettings } from '#core/system/system'
import { asCallback, plain, theEngine } from '../engine/client'
import type { JudgedJob } from '../engine/engine'
import { NoAnswer } from '../engine/renewed'
import { useJob } from './job'
import { useShop } from './shop'

/**
 * The check of the job on the bench: its verdicts, and those with a tried remedy.
 */
export const useJudging = defineStore('judging', () => {
  const job = useJob()
  const store = useShop()
  const rules = computed(() => store.shop.rules)
  const settings = computed<ShopSettings>(() => ({ rules: store.shop.rules, units: store.shop.units }))
  const judged = shallowRef<JudgedJob | null>(null)
  const trialJudged = shallowRef<JudgedJob | null>(null)
  const trial = shallowRef<RemedyRef | null>(null)
  const problem = ref('')
  const tried = computed(() =>
    trial.value && job.document ? applyRemedy(completeJob(job.document), trial.value) : null,
  )

  const lastEntry = computed(() => {
    if (!job.document) return ''
    const before = applyChanges(job.document, inverseOf(job.lastStep))
    const [entry] = changedFields(before, job.document, job.lastStep, writerIn(store.shop.units))
    return entry
      ? ` The last entry was ${entry.part}: ${entry.label.toLowerCase()} ${entry.after}. Check it.`
      : ''
  })

  /** The message for a failed check; if it did not end, with the value that was entered last. */
  function wordsOf(cause: unknown): string {
    const { message } = cause as Error
    return cause instanceof NoAnswer ? joinText(message, lastEntry.value) : message
  }

  /** Asks the engine for verdicts of a document; news of an older one is passed over. */
  function askEngine(
    what: 'job' | 'trial',
    into: ShallowRef<JudgedJob | null>,
  ): (document: JobDocument | null) => Promise<void> {
    let turn = 0
    return async (document) => {
      const mine = ++turn
      if (!document) {
        into.value = null
        return
      }
      const take = (news: JudgedJob): void => {
        // Results of slow checks stay until they are known again.
        const known = into.value
        const specified = document.specified ? (news.specified ?? known?.specified ?? null) : null
        if (mine === turn) into.value = { ...news, specified, wiring: news.wiring ?? known?.wiring ?? null }
      }
      try {
        await theEngine().judge(what, plain(document), plain(settings.value), asCallback(take))
        if (mine === turn) problem.value = ''
      } catch (cause) {
        if (mine === turn) problem.value = wordsOf(cause)
      }
    }
  }
  const askForJob = askEngine('job', judged)
  const askForTrial = askEngine('trial', trialJudged)

  // A trial is of the job as it stood: the next change ends it. Another job is checked from nothing.
  watch(
    () => job.id,
    () => {
      judged.value = null
      void theEngine().forget('job')
    },
    { flush: 'sync' },
  )
  watch(
    () => job.document,
    () => {
      trial.value = null
    },
    { flush: 'sync' },
  )
  watch([() => job.document, settings], ([document]) => void askForJob(document), { immediate: true })
  watch(tried, (document) => void askForTrial(document))

  function tryRemedy(remedy: RemedyRef | null): void {
    trial.value = remedy && trial.value && sameRemedy(remedy, trial.value) ? null : remedy
  }

  return {
    rules,
    settings,
    trial,
    tryRemedy,
    assessment: computed(() => judged.value?.assessment ?? null),
    /** The verdict of the job as surveyed. */
    found: computed(() => judged.value?.found ?? null),
    /** The verdict of the chosen answer; null while none is chosen, or while it is being checked. */
    specified: computed(() => judged.value?.specified ?? null),
    /** The verdict of the wiring; null until it is checked. */
    wiring: computed(() => judged.value?.wiring ?? null),
    drawings: computed(() => judged.value?.drawings ?? []),
    /** Whether the checks with a run still show their last result. */
    looksAhead: computed(() => judged.value !== null && !judged.value.complete),
    aheadProblem: problem,
    trialJudged: computed(() => (trial.value ? trialJudged.value : null)),
  }
})
