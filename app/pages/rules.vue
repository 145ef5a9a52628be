<script setup lang="ts">
import { useDebounceFn, useIntervalFn } from '@vueuse/core'
import { dequal } from 'dequal/lite'
import { ruleCatalogue, ruleIds, type RuleOverrides } from '#core/rules/rules'
import { asJson, ask, type Answer, type Preview, type Shop } from '../utils/api'

type Effect = Omit<Preview, 'next'>

const account = useAccount()
useHead({ title: 'Shop rules · Jovial Anchor' })
useKeys(shopKeys)
const store = useShop()
const draft = ref<Shop>(structuredClone(toRaw(store.shop)))
const changed = computed(() => !dequal({ ...draft.value }, { ...store.shop }))
const rulesChanged = computed(() => !dequal(toRaw(draft.value.rules), store.shop.rules))
const effect = shallowRef<Effect | null>(null)
/** The saved message stays until the next change. */
const isKept = ref(false)
const problem = ref('')
const busy = ref(false)

/** The effect of the rules in the form, checked some jobs at a time until all are done or the rules change. */
const preview = useDebounceFn(async () => {
  const { rules } = draft.value
  const asked = JSON.stringify(rules)
  let after: string | null = null
  let all: Effect = { open: 0, judged: 0, unchecked: 0, changed: [] }
  do {
    const answer: Answer<Preview> = await ask<Preview>('/api/shop/preview', asJson('POST', { rules, after }))
    if (asked !== JSON.stringify(draft.value.rules)) return
    if (answer.kind !== 'ok') {
      effect.value = null
      problem.value = problemOf(answer, 'The server cannot be reached: the effect is unknown.')
      return
    }
    const { open, judged, unchecked, changed: some, next }: Preview = answer.data
    all = {
      open,
      judged: all.judged + judged,
      unchecked: all.unchecked + unchecked,
      changed: [...all.changed, ...some],
    }
    effect.value = all
    after = next
  } while (after !== null)
}, 300)

/** Open jobs that wait for a check with the saved rules. */
const waiting = ref(0)
const countWaiting = async (): Promise<void> => {
  if (waiting.value === 0) return
  const answer = await ask<{ waiting: number }>('/api/shop/judging')
  if (answer.kind === 'ok') waiting.value = answer.data.waiting
}
useIntervalFn(() => void countWaiting(), 700)

function setRules(rules: RuleOverrides) {
  draft.value = { ...draft.value, rules }
  effect.value = null
  isKept.value = false
  problem.value = ''
  if (rulesChanged.value) void preview()
}
/** Another page can offer the value of a rule: it stands in the form, with its effect, and is not saved. */
onMounted(() => {
  const { set, to } = useRoute().query
  const id = ruleIds.find((one) => one === set)
  const value = Number(to)
  if (id && ruleCatalogue[id].kind === 'number' && Number.isFinite(value))
    setRules({ ...draft.value.rules, [id]: value })
})
async function keep() {
  busy.value = true
  const answer = await ask<{ shop: Shop; waiting: number }>('/api/shop', asJson('PUT', draft.value))
  busy.value = false
  problem.value = problemOf(answer, 'The server cannot be reached. Nothing was saved.')
  if (answer.kind === 'refused' && answer.status === 409) {
    // Someone else was quicker: their value stands, and this form keeps its own changes to be saved over it.
    const theirs = (answer.refused as { theirs?: Shop }).theirs
    if (theirs) draft.value = { ...draft.value, version: theirs.version, epoch: theirs.epoch }
    problem.value = `${answer.refused.error}. Press again to keep yours over it, or leave the page to keep theirs.`
  }
  if (answer.kind !== 'ok') return
  store.take(answer.data.shop)
  draft.value = structuredClone(answer.data.shop)
  effect.value = null
  isKept.value = true
  waiting.value = answer.data.waiting
}
function drop() {
  draft.value = structuredClone(toRaw(store.shop))
  effect.value = null
  problem.value = ''
}
</script>

<template>
  <main class="mx-auto max-w-6xl p-4 md:px-8 md:py-7">
    <header class="mb-4">
      <h1 class="text-3xl">Shop rules</h1>
      <p class="text-soft">
        All limits and approaches behind the verdicts. They apply to every job, and a job can override them.
        <NuxtLink to="/letterhead" class="underline">Letterhead and prices</NuxtLink> ·
        <NuxtLink to="/data" class="underline">Export and import</NuxtLink>
      </p>
    </header>
    <div class="grid gap-6 lg:grid-cols-[minmax(0,1fr)_20rem]">
      <div>
        <section class="mb-5 grid gap-3 border-b border-line pb-4 sm:grid-cols-3">
          <label class="block"
            ><span class="font-semibold">Workshop</span
            ><input v-model="draft.name" class="entry" maxlength="120" autocomplete="off"
          /></label>
          <label class="block"
            ><span class="font-semibold">Lengths, weights, temperatures</span
            ><select v-model="draft.units.system" class="entry">
              <option value="metric">m, mm², kg, °C</option>
              <option value="imperial">ft, AWG, lb, °F</option>
            </select></label
          >
          <label class="block"
            ><span class="font-semibold">Money</span
            ><input v-model="draft.units.currency" class="entry" maxlength="4" autocomplete="off"
          /></label>
        </section>
        <RuleList :model-value="draft.rules" :base="{}" base-name="default" @update:model-value="setRules" />
      </div>
      <aside class="lg:sticky lg:top-6 lg:self-start" aria-label="Effect on open jobs">
        <div class="border border-line bg-card p-4">
          <h2 class="text-lg">Effect on open jobs</h2>
          <p v-if="problem" role="alert" class="mt-1 border-l-4 border-bad pl-2">{{ problem }}</p>
          <div role="status" class="mt-1" data-testid="effect">
            <p v-if="isKept" class="font-semibold">
              {{
                waiting > 0
                  ? `Saved. ${waiting} open ${waiting === 1 ? 'job is' : 'jobs are'} still being checked.`
                  : 'Saved. Every open job is checked with the new rules.'
              }}
            </p>
            <VerdictChanges v-else-if="effect" :effect="effect" />
            <p v-else-if="rulesChanged && !problem" class="text-soft">Checking the open jobs…</p>
            <p v-else class="text-soft">
              Change a rule to see which open jobs would get another verdict. Nothing changes until you save.
            </p>
          </div>
          <p class="mt-3 flex flex-wrap gap-2">
            <button
              type="button"
              class="act"
              :disabled="!changed || busy || !account.mayDecide"
              @click="keep"
            >
              Save rules</button
            ><button type="button" class="act-quiet" :disabled="!changed || busy" @click="drop">
              Discard
            </button>
            <span v-if="!account.mayDecide" class="text-soft">{{ needsInstaller }}</span>
          </p>
        </div>
      </aside>
    </div>
  </main>
</template>
