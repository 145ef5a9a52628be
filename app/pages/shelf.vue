<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { shelfColumns } from '#core/formats/shelf-csv'
import { labelledShelfKinds } from '#core/labels/kinds'
import { shelfKind, shelfKindIds, type ShelfKindId } from '#core/shelf/kinds'
import type { Stored } from '../../server/repositories/shelf'
import type { ShelfPage, ShelfRecord } from '../utils/api'

const account = useAccount()
useHead({ title: 'Shelf · Jovial Anchor' })
useKeys({
  ...shopKeys,
  '/': () => document.querySelector<HTMLElement>('#shelf-words')?.focus(),
})
const { q } = useWriting()
const route = useRoute()
const kind = ref<ShelfKindId>(shelfKindIds.find((k) => k === route.query.kind) ?? 'batteries')
const words = ref('')
const sorts = [
  ['name', 'Name'],
  ['code', 'Code'],
  ['maker', 'Maker'],
  ['price', 'Price'],
] as const
const sort = ref<(typeof sorts)[number][0]>('name')
/** The part that is open: its code, or empty for a new one. */
const open = ref<string | null>(null)
/** The photo of the label of a new part. */
const photo = shallowRef<File | null>(null)
/** Counts new parts: each has a form of its own. */
const started = ref(0)
function openNew(of: File | null) {
  photo.value = of
  started.value++
  open.value = ''
}
function choosePhoto(event: Event) {
  const [file] = takeFiles(event)
  if (file) openNew(file)
}

const {
  rows: parts,
  answer,
  problem,
  load,
  more,
  hasMore,
  forget,
} = usePages<ShelfRecord, ShelfPage & { counts: Record<string, number> }>(
  (after) =>
    `/api/shelf?${new URLSearchParams({ kind: kind.value, words: words.value, sort: sort.value, ...(after && { after }) })}`,
  (page) => page.parts,
)
const counts = computed(() => answer.value?.counts ?? {})
const loadSoon = useDebounceFn(load, 150)
watch([words, sort], loadSoon)
watch(kind, () => {
  open.value = null
  forget()
  void load()
})
onMounted(load)
const brief = computed(() =>
  shelfKind(kind.value).brief.map((name) => [name, shelfKind(kind.value).fields[name]!] as const),
)
const priceOf = ({ values }: ShelfRecord) =>
  typeof values.price === 'number'
    ? q(values.price, 'money')
    : typeof values.pricePerM === 'number'
      ? `${q(values.pricePerM, 'money')} a metre`
      : '–'
const total = computed(() => Object.values(counts.value).reduce((a, b) => a + b, 0))
async function saved(code: string | null) {
  useShelfVersions().forget()
  open.value = code
  await load()
}
</script>

<template>
  <main class="mx-auto max-w-7xl p-4 md:px-8 md:py-7">
    <header class="mb-4 flex flex-wrap items-end gap-x-6 gap-y-3">
      <div class="mr-auto">
        <h1 class="text-3xl">Shelf</h1>
        <p class="text-soft">{{ total }} parts with their data. A job keeps the version it used.</p>
      </div>
      <TableImport
        v-if="account.mayDecide"
        :path="`/api/shelf/${kind}/table`"
        :title="shelfKind(kind).title"
        :columns="shelfColumns(kind)"
        :part="shelfKind(kind).fills"
        :words="
          ({ added, changed, same }: Stored) =>
            `${added} new, ${changed} in a new version, ${same} the same as before.`
        "
        @taken="saved(null)"
      />
      <a :href="`/api/shelf/${kind}/table`" download class="act-quiet">Export CSV</a>
      <label
        v-if="account.mayDecide && labelledShelfKinds.includes(kind)"
        class="act-quiet focus-within:outline-2 focus-within:outline-sea"
        >New part from a photo<input type="file" accept="image/*" class="sr-only" @change="choosePhoto"
      /></label>
      <button v-if="account.mayDecide" type="button" class="act" @click="openNew(null)">
        New {{ shelfKind(kind).one.toLowerCase() }}
      </button>
    </header>
    <nav aria-label="Kinds of parts" class="mb-3 flex flex-wrap gap-1">
      <button
        v-for="k in shelfKindIds"
        :key="k"
        type="button"
        class="min-h-9 rounded-sm border px-2 max-md:min-h-11"
        :class="
          kind === k ? 'border-ink bg-card font-semibold' : 'border-transparent text-soft hover:border-edge'
        "
        :aria-pressed="kind === k"
        @click="kind = k"
      >
        {{ shelfKind(k).title }} <span class="text-xs">{{ counts[k] ?? 0 }}</span>
      </button>
    </nav>
    <div class="mb-3 flex gap-3 max-md:flex-wrap">
      <label class="grow"
        ><span class="sr-only">Search the shelf</span
        ><input
          id="shelf-words"
          v-model="words"
          type="search"
          class="entry"
          maxlength="200"
          :placeholder="`Search ${shelfKind(kind).title.toLowerCase()} by name, code or maker`"
      /></label>
      <SortBy v-model="sort" :sorts="sorts" />
    </div>
    <p v-if="problem" role="alert" class="mb-3 border-l-4 border-bad bg-card px-3 py-2">{{ problem }}</p>
    <div class="grid gap-5" :class="open !== null && 'lg:grid-cols-[minmax(0,1fr)_26rem]'">
      <div
        v-if="parts?.length"
        class="overflow-x-auto border-y border-line bg-card"
        role="region"
        :aria-label="shelfKind(kind).title"
        tabindex="0"
      >
        <table class="w-full">
          <thead>
            <tr class="border-b border-line text-left text-xs text-soft">
              <th class="px-3 py-2 font-normal">Part</th>
              <th v-for="[name, field] in brief" :key="name" class="px-3 py-2 font-normal max-md:hidden">
                {{ field.label }}
              </th>
              <th class="px-3 py-2 text-right font-normal">Price</th>
              <th class="px-3 py-2 text-right font-normal max-md:hidden">Version</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="part in parts"
              :key="part.code"
              class="border-line not-first:border-t hover:bg-paper/60"
              :class="open === part.code && 'bg-paper'"
            >
              <td class="px-3 py-1.5">
                <button type="button" class="min-h-9 text-left max-md:min-h-11" @click="open = part.code">
                  <span class="font-semibold underline">{{ part.name }}</span><span
                    class="block text-xs text-soft"
                    >{{ part.code }}<template v-if="part.maker"> · {{ part.maker }}</template></span
                  >
                </button>
              </td>
              <td v-for="[name, field] in brief" :key="name" class="px-3 py-1.5 max-md:hidden">
                {{ shownValue(field, part.values[name], q) || '–' }}
              </td>
              <td class="px-3 py-1.5 text-right whitespace-nowrap">{{ priceOf(part) }}</td>
              <td class="px-3 py-1.5 text-right max-md:hidden">{{ part.version }}</td>
            </tr>
          </tbody>
        </table>
        <p v-if="hasMore" class="p-3 text-center">
          <button type="button" class="act-quiet" @click="more">Show more</button>
        </p>
      </div>
      <p v-else-if="parts" class="border-y border-line bg-card px-4 py-10 text-center text-soft">
        <AnchorMark class="mx-auto mb-2 size-10" />{{
          words
            ? 'Nothing found on the shelf.'
            : 'This board is bare. Even an anchor starts as a bar of iron.'
        }}
      </p>
      <ShelfEditor
        v-if="open !== null"
        :key="`${kind}/${open}/${open === '' ? started : ''}`"
        :kind="kind"
        :code="open"
        :photo="open === '' ? photo : null"
        @saved="saved"
        @close="open = null"
      />
    </div>
  </main>
</template>
