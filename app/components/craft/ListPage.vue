<script
  setup
  lang="ts"
  generic="Row extends { readonly id: string }, Page extends { readonly next: string | null }"
>
import { useDebounceFn } from '@vueuse/core'
import { asJson, ask } from '../../utils/api'

/** A list that is searched by words, with the form that adds to it. A row is opened at `to`, with its id. */
const props = defineProps<{
  title: string
  about: string
  /** The thing to add: `craft`. */
  one: string
  /** Route of the list, and of a new entry. */
  path: string
  to: string
  rowsOf: (page: Page) => readonly Row[]
  placeholder: string
}>()
useHead({ title: () => `${props.title} · Jovial Anchor` })
const search = useTemplateRef<HTMLInputElement>('search')
useKeys({ ...shopKeys, '/': () => search.value?.focus() })
const account = useAccount()
const device = useDeviceName()
const words = ref('')
const isAdding = ref(false)
const addProblem = ref('')
const { rows, problem, load, more, hasMore } = usePages<Row, Page>(
  (after) => `${props.path}?${new URLSearchParams({ words: words.value, ...(after && { after }) })}`,
  (page) => props.rowsOf(page),
)
watch(words, useDebounceFn(load, 150))
onMounted(load)
async function add(entry: object) {
  const answer = await ask<Row>(props.path, asJson('POST', { who: signedAs(device.value), ...entry }))
  addProblem.value = problemOf(answer, 'The server cannot be reached. Nothing was saved.')
  if (answer.kind === 'ok') await navigateTo(`${props.to}/${answer.data.id}`)
}
</script>

<template>
  <main class="mx-auto max-w-6xl p-4 md:px-8 md:py-7">
    <header class="mb-3 flex flex-wrap items-end gap-x-6 gap-y-3">
      <div class="mr-auto">
        <h1 class="text-3xl">{{ title }}</h1>
        <p class="text-soft">{{ about }}</p>
      </div>
      <button v-if="account.mayDecide" type="button" class="act" @click="isAdding = true">
        Add {{ one }}
      </button>
    </header>
    <CraftTabs />
    <label class="mb-3 block"
      ><span class="sr-only">Search {{ title.toLowerCase() }}</span
      ><input
        ref="search"
        v-model="words"
        type="search"
        class="entry"
        maxlength="200"
        :placeholder="placeholder"
    /></label>
    <p v-if="problem" role="alert" class="mb-3 border-l-4 border-bad bg-card px-3 py-2">{{ problem }}</p>
    <ul v-if="rows?.length" :aria-label="title" class="border-y border-line bg-card">
      <li
        v-for="row in rows"
        :key="row.id"
        class="relative border-line px-4 py-3 not-first:border-t hover:bg-paper/60"
      >
        <slot name="row" :row="row" />
      </li>
    </ul>
    <p v-if="hasMore" class="mt-3 text-center">
      <button type="button" class="act-quiet" @click="more">Show more</button>
    </p>
    <p v-if="rows?.length === 0" class="border-y border-line bg-card px-4 py-10 text-center text-soft">
      {{
        words
          ? `No ${one} found. Try fewer letters.`
          : `No ${title.toLowerCase()} yet. Each job brings its own.`
      }}
    </p>
    <AppDialog v-model:open="isAdding" :title="`Add ${one}`">
      <p v-if="addProblem" role="alert" class="mb-3 text-bad">{{ addProblem }}</p>
      <slot name="form" :add="add" />
    </AppDialog>
  </main>
</template>
