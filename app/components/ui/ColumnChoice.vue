<script setup lang="ts">
import { foreignTable, inOwnColumns, ownColumns, type ForeignTable } from '#core/formats/foreign-table'
import type { TableColumns } from '#core/formats/table'
import type { PartKindId } from '#core/job/fields'

/**
 * Which column of a table that somebody else made becomes which of ours: guessed by its words, chosen by the person.
 */
const props = defineProps<{ text: string; columns: TableColumns; part: PartKindId | null }>()
const emit = defineEmits<{ ready: [text: string]; cancel: [] }>()
const table = computed<ForeignTable>(() => foreignTable(props.text, props.columns, props.part))
const chosen = ref<(string | null)[]>([])
watch(table, ({ columns }) => (chosen.value = columns.map(({ guess }) => guess)), { immediate: true })
const own = computed(() => ownColumns(props.columns))
const count = computed(() => chosen.value.filter(Boolean).length)
const twice = computed(() => {
  const id = chosen.value.find((one, i) => one !== null && chosen.value.indexOf(one) !== i)
  return own.value.find(([name]) => name === id)?.[1] ?? ''
})
const hasName = computed(() => chosen.value.some((id) => id === 'code' || id === 'name'))
const take = () => {
  emit('ready', inOwnColumns(table.value, props.columns, { chosen: chosen.value, part: props.part }))
}
</script>

<template>
  <div>
    <p>
      <strong>{{ count }} of {{ table.columns.length }} columns are matched.</strong> Check what each becomes.
      Columns without a match are left out.
    </p>
    <div
      class="mt-2 max-h-[50vh] overflow-auto border border-line"
      tabindex="0"
      role="region"
      aria-label="Columns of the file"
    >
      <table class="w-full">
        <thead>
          <tr class="text-left text-xs text-soft">
            <th class="px-2 py-1 font-normal">In the file</th>
            <th class="px-2 py-1 font-normal">Becomes</th>
            <th class="px-2 py-1 font-normal max-md:hidden">First values</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(column, i) in table.columns" :key="i" class="border-t border-line">
            <th scope="row" class="px-2 py-1 text-left font-semibold break-words">
              {{ column.heading || `Column ${i + 1}` }}
            </th>
            <td class="px-2 py-1">
              <select
                v-model="chosen[i]"
                class="entry"
                :aria-label="`${column.heading || `Column ${i + 1}`} becomes`"
              >
                <option :value="null">Leave out</option>
                <option v-for="[id, label] in own" :key="id" :value="id">{{ label }}</option>
              </select>
            </td>
            <td class="px-2 py-1 text-soft max-md:hidden">{{ column.samples.join(' · ') }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="twice" role="alert" class="mt-2 border-l-4 border-bad pl-2">
      Two columns become {{ twice }}. Leave one out.
    </p>
    <p v-else-if="!hasName" role="alert" class="mt-2 border-l-4 border-bad pl-2">
      Choose the column that becomes the code or the name.
    </p>
    <p class="mt-3 flex gap-2">
      <button type="button" class="act" :disabled="twice !== '' || !hasName" @click="take">
        Read {{ count }} columns</button
      ><button type="button" class="act-quiet" @click="$emit('cancel')">Import nothing</button>
    </p>
  </div>
</template>
