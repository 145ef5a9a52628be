<script setup lang="ts">
import { isPlainKind, paperKindIds, paperKinds, type PaperKind } from '#core/papers/kinds'
import type { LabelSheetId } from '#core/papers/label-sheets'
import { plain } from '../../../../engine/client'

/** All papers of the job: states, missing items, issue, replace, share. */
const { bench, problem, ready } = useJobPage('Papers')
const account = useAccount()
const judging = useJudging()
const shop = useShop()
const who = useDeviceName()
const { letterhead, isSettled } = useLetterhead()
const { all, isIssuing, isLoaded, isSaved, hintFor, load, issue: issueNext } = useIssuedPapers()
watch(ready, (is) => is && load(), { immediate: true })

const { result: missing, problem: missingProblem } = useAsked(
  (engine, job, { rules = {}, units }) =>
    engine.missing(
      job,
      { rules, units: units ?? shop.shop.units, letterhead: plain(letterhead.value) },
      judging.specified?.verdict ?? null,
    ),
  () => (ready.value && isSettled.value ? bench.document : null),
)
const hint = computed(() => hintFor('', 'An issued paper does not change. A newer one replaces it.'))
const said = ref('')
const issueProblem = ref('')
const issuing = ref<PaperKind | null>(null)

/** Address of a new customer's page, or why there is none. */
async function newPage(): Promise<string | null> {
  const answer = await ask<{ token: string }>(
    `/api/jobs/${bench.id}/customer-link`,
    asJson('POST', { who: signedAs(who.value), days: cardDays }),
  )
  if (answer.kind === 'ok') return `${window.location.origin}/customer#${answer.data.token}`
  issueProblem.value = problemOf(answer, 'The server cannot be reached. Nothing was issued.')
  return null
}
/** A card stays in its locker for years, days. */
const cardDays = 3650

async function issue(
  kind: PaperKind,
  { labelSheet, withCode }: { labelSheet?: LabelSheetId; withCode?: boolean },
): Promise<void> {
  issueProblem.value = ''
  said.value = ''
  issuing.value = kind
  const customerPage = withCode ? await newPage() : undefined
  if (customerPage !== null) {
    const answer = await issueNext({
      ...(isPlainKind(kind) ? { kind } : {}),
      ...(labelSheet ? { labelSheet } : {}),
      ...(customerPage ? { customerPage } : {}),
    })
    issueProblem.value = problemOf(answer, 'The server cannot be reached. Nothing was issued.')
    if (answer.kind === 'ok') said.value = `${paperKinds[kind]} ${answer.data.number} is issued.`
  }
  issuing.value = null
}
</script>

<template>
  <JobShell
    title="Papers"
    about="Everything you send, print or stick on. What each paper lacks is listed."
    :problem="problem"
    :ready="ready"
  >
    <div class="grid items-start gap-4 p-3 md:p-4 lg:grid-cols-[minmax(0,1fr)_22rem]">
      <section aria-label="Papers" class="min-w-0 border border-line bg-card p-3">
        <p v-if="issueProblem" role="alert" class="mb-2 border-l-4 border-bad pl-2">{{ issueProblem }}</p>
        <p v-if="issuing" role="status" class="mb-2 flex items-center gap-2 text-soft">
          <progress class="w-24" :aria-label="`Issuing ${paperKinds[issuing]}`" />Issuing
          {{ paperKinds[issuing] }} …
        </p>
        <p v-else-if="said" role="status" class="mb-2 border-l-4 border-suits pl-2">{{ said }}</p>
        <p class="text-xs text-soft">{{ hint }}</p>
        <!-- Rows come once they are whole: they do not move under a press. -->
        <p v-if="!missing || !isLoaded" class="p-2 text-soft" :aria-busy="!missingProblem">
          {{ missingProblem || 'Checking the papers …' }}
        </p>
        <ul v-else>
          <PaperRow
            v-for="kind in paperKindIds"
            :key="kind"
            :kind="kind"
            :rows="all.filter((row) => row.kind === kind)"
            :missing="missing[kind]"
            :can-issue="isSaved && account.mayDecide"
            :busy="isIssuing || issuing !== null"
            @issue="issue(kind, $event)"
          />
        </ul>
      </section>
      <aside class="grid gap-4" aria-label="For the customer">
        <CustomerLink />
        <PhotoChooser />
        <section class="border border-line bg-card p-3" aria-labelledby="letterhead-title">
          <h2 id="letterhead-title" class="text-lg">Letterhead</h2>
          <p>Name, address, logo, tax and terms of the workshop, for new papers.</p>
          <p class="mt-2"><NuxtLink to="/letterhead" class="act-quiet">Edit letterhead</NuxtLink></p>
        </section>
      </aside>
    </div>
  </JobShell>
</template>
