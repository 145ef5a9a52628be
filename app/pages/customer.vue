<script setup lang="ts">
import { paperKinds } from '#core/papers/kinds'
import type { CustomerPaper } from '../../server/utils/customer'

/** The customer's page behind a link: the papers of one job, and the answer to its quotation. */
useHead({ title: 'Your papers · Jovial Anchor' })
interface Shown {
  readonly shop: string
  readonly job: string
  readonly papers: readonly CustomerPaper[]
}
/** The secret stands behind the `#`, so that it is sent to no server and kept in no log. */
const token = useRoute().hash.slice(1)
const shown = shallowRef<Shown | null>(null)
const problem = ref('')
const selected = ref(0)
const unreachable = 'The workshop cannot be reached. Try again later.'
async function open(): Promise<void> {
  const answer = await ask<Shown>('/api/customer/open', asJson('POST', { token }))
  problem.value = problemOf(answer, unreachable)
  if (answer.kind === 'ok') shown.value = answer.data
}
onMounted(open)
const current = computed(() => shown.value?.papers[selected.value] ?? null)

const name = ref('')
const note = ref('')
const options = ref<string[]>([])
/** The id of the alternative they take; empty for the chosen answer. */
const alternative = ref('')
watch(alternative, () => {
  options.value = []
})
const offers = computed(() => current.value?.quotation?.offers ?? [])
const offered = computed(() => offers.value.find(({ id }) => id === alternative.value)?.options ?? [])
const busy = ref(false)
async function answerWith(answer: 'accepted' | 'declined'): Promise<void> {
  if (!current.value) return
  busy.value = true
  const answered = await ask(
    '/api/customer/answer',
    asJson('POST', {
      token,
      count: current.value.count,
      answer,
      name: name.value,
      note: note.value,
      options: answer === 'accepted' ? options.value : [],
      alternative: answer === 'accepted' ? alternative.value : '',
    }),
  )
  busy.value = false
  problem.value = problemOf(answered, unreachable)
  if (answered.kind === 'ok') await open()
}
const message = ref('')
const sent = ref('')
async function send(): Promise<void> {
  busy.value = true
  const answer = await ask(
    '/api/customer/message',
    asJson('POST', { token, name: name.value, words: message.value }),
  )
  busy.value = false
  problem.value = problemOf(answer, unreachable)
  if (answer.kind !== 'ok') return
  sent.value = 'Your message is sent.'
  message.value = ''
}
const print = () => window.print()
</script>

<template>
  <main class="mx-auto max-w-[52rem] p-4 md:px-8 md:py-6 print:max-w-none print:p-0">
    <p v-if="problem" role="alert" class="mb-3 border-l-4 border-bad bg-card px-3 py-2">{{ problem }}</p>
    <template v-if="shown">
      <header class="mb-4 print:hidden">
        <p class="text-soft">{{ shown.shop }}</p>
        <h1 class="text-2xl">
          Your papers<template v-if="shown.job"> for {{ shown.job }}</template>
        </h1>
        <p v-if="shown.papers.length === 0">The workshop has issued no paper yet.</p>
        <nav v-else aria-label="Papers" class="mt-2 flex flex-wrap gap-2">
          <button
            v-for="(paper, i) in shown.papers"
            :key="paper.count"
            type="button"
            :class="i === selected ? 'act' : 'act-quiet'"
            :aria-pressed="i === selected"
            @click="selected = i"
          >
            {{ paperKinds[paper.kind] }} {{ paper.number }}</button
          ><button type="button" class="act-quiet" @click="print">Print</button>
        </nav>
      </header>
      <template v-if="current">
        <section
          v-if="current.quotation"
          class="mb-4 border border-edge bg-card p-4 print:hidden"
          aria-labelledby="answer-title"
        >
          <h2 id="answer-title" class="text-lg">Your answer</h2>
          <p v-if="current.quotation.answer" role="status">
            {{ current.quotation.answer.answer === 'accepted' ? 'Accepted' : 'Declined' }} by
            {{ current.quotation.answer.name }}, {{ ago(current.quotation.answer.at) }}.
          </p>
          <p v-else-if="!current.quotation.canAnswer">
            This quotation has expired. Ask the workshop for a new one.
          </p>
          <form v-else class="grid gap-3" @submit.prevent>
            <fieldset v-if="offers.length > 1">
              <legend class="font-semibold">What you take</legend>
              <label v-for="offer in offers" :key="offer.id" class="flex min-h-11 items-center gap-2"
                ><input
                  v-model="alternative"
                  type="radio"
                  name="alternative"
                  class="size-5"
                  :value="offer.id"
                />{{ offer.name }} <span class="text-soft">{{ offer.total }}</span></label
              >
            </fieldset>
            <fieldset v-if="offered.length">
              <legend class="font-semibold">Options, before tax</legend>
              <label v-for="option in offered" :key="option.id" class="flex min-h-11 items-center gap-2"
                ><input v-model="options" type="checkbox" class="size-5" :value="option.id" />{{
                  option.name
                }}
                <span class="text-soft">{{ option.amount }}</span></label
              >
            </fieldset>
            <label class="block"
              ><span class="font-semibold">Your name</span
              ><input v-model="name" class="entry" maxlength="100" autocomplete="name"
            /></label>
            <label class="block"
              ><span class="font-semibold">Message or reason</span
              ><textarea v-model="note" class="entry min-h-20" maxlength="1000" />
            </label>
            <p class="flex flex-wrap gap-2">
              <button
                type="button"
                class="act"
                :disabled="busy || !name.trim()"
                @click="answerWith('accepted')"
              >
                Accept quotation</button
              ><button
                type="button"
                class="act-quiet"
                :disabled="busy || !name.trim()"
                @click="answerWith('declined')"
              >
                Decline quotation
              </button>
            </p>
            <p class="text-xs text-soft">Your answer reaches the workshop at once. You give it once.</p>
          </form>
        </section>
        <PaperSheet :paper="current.paper" />
      </template>
      <section class="mt-4 border border-edge bg-card p-4 print:hidden" aria-labelledby="message-title">
        <h2 id="message-title" class="text-lg">Write to the workshop</h2>
        <p v-if="sent" role="status">{{ sent }}</p>
        <form class="grid gap-3" @submit.prevent="send">
          <label class="block"
            ><span class="font-semibold">Name</span
            ><input v-model="name" class="entry" maxlength="100" autocomplete="name"
          /></label>
          <label class="block"
            ><span class="font-semibold">Message</span
            ><textarea v-model="message" class="entry min-h-20" maxlength="2000" />
          </label>
          <p>
            <button type="submit" class="act-quiet" :disabled="busy || !name.trim() || !message.trim()">
              Send message
            </button>
          </p>
        </form>
      </section>
    </template>
    <p v-else-if="!problem" class="text-soft" aria-busy="true">Opening your papers …</p>
  </main>
</template>
