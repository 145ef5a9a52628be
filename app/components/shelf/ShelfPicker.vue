<script setup lang="ts">
import { shelfKind, type ShelfKindId, type ShelfPart } from '#core/shelf/kinds'
import { keptShelf } from '../../device/keeper'
import type { ShelfPage } from '../../utils/api'

/** Takes one part from the shelf. */
const { q } = useWriting()
const props = defineProps<{ kinds: readonly ShelfKindId[] }>()
const emit = defineEmits<{ pick: [part: ShelfPart]; close: [] }>()
const kind = ref(props.kinds[0]!)
const words = ref('')
const {
  rows: parts,
  problem,
  load,
  more,
  hasMore,
} = usePages<ShelfPart, ShelfPage>(
  (after) =>
    `/api/shelf?${new URLSearchParams({ kind: kind.value, words: words.value, ...(after && { after }) })}`,
  (page) => page.parts,
  () => keptShelf(kind.value, words.value),
)
watch([kind, words], load, { immediate: true })
</script>

<template>
  <AppDialog :open="true" title="Choose from the shelf" @update:open="emit('close')">
    <div class="flex flex-wrap gap-2">
      <label class="min-w-40 grow"
        ><span class="sr-only">Search the shelf</span
        ><input v-model="words" type="search" class="entry" maxlength="200" placeholder="Name, code or maker"
      /></label>
      <label v-if="kinds.length > 1" class="min-w-40"
        ><span class="sr-only">Kind of part</span
        ><select v-model="kind" class="entry">
          <option v-for="k in kinds" :key="k" :value="k">{{ shelfKind(k).title }}</option>
        </select></label
      >
    </div>
    <p v-if="problem" role="alert" class="mt-2 text-bad">{{ problem }}</p>
    <ul v-if="parts?.length" class="mt-2 max-h-[50vh] overflow-y-auto" aria-label="Parts">
      <li v-for="part in parts" :key="part.code">
        <button
          type="button"
          class="min-h-11 w-full border-b border-line px-2 py-1 text-left hover:bg-paper"
          @click="emit('pick', part)"
        >
          <span class="font-semibold">{{ part.name }}</span>
          <span class="text-soft">{{ part.code }}</span><span class="block text-xs text-soft">{{
            shelfBrief(part, q)
          }}</span>
        </button>
      </li>
      <li v-if="hasMore" class="p-2 text-center">
        <button type="button" class="act-quiet" @click="more">Show more</button>
      </li>
    </ul>
    <p v-else-if="parts" class="mt-3 text-soft">Nothing found on the shelf.</p>
  </AppDialog>
</template>
