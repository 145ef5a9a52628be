<script setup lang="ts" generic="Taken">
import type { TableColumns, TableProblem } from '#core/formats/table'
import type { PartKindId } from '#core/job/fields'
import { ask } from '../../utils/api'

/**
 * Reads a table: errors are listed row by row, and the good rows are imported only on request.
 */
const props = defineProps<{
  /** Route that reads the table. */ path: string
  /** What the rows are: `Chargers`. */ title: string
  /** What came of taking them. */ words: (taken: Taken) => string
  /** The columns of a table that may come with other ones, which a person then matches. */ columns?: TableColumns
  /** The kind of part that the table gives values to. */ part?: PartKindId | null
}>()
const emit = defineEmits<{ taken: [] }>()
/** Larger files are read by the server alone. */
const mostMatchedBytes = 8 * 1024 * 1024
interface Report {
  readonly count: number
  readonly good: number
  readonly bad: number
  readonly problems: readonly TableProblem[]
  readonly taken?: Taken
}
const who = useDeviceName()
const file = shallowRef<File | null>(null)
/** The sent file, or its converted form. */
const content = shallowRef<Blob | null>(null)
/** The text of a file whose columns are still to be matched. */
const foreign = ref('')
const report = shallowRef<Report | null>(null)
const problem = ref('')

async function send(take: 'none' | 'good') {
  problem.value = ''
  const answer = await ask<Report>(
    `${props.path}?${new URLSearchParams({ who: signedAs(who.value), take })}`,
    { method: 'POST', headers: { 'content-type': 'text/csv' }, body: content.value },
  )
  if (answer.kind === 'ok') report.value = answer.data
  else problem.value = problemOf(answer, 'The server cannot be reached. Nothing was imported.')
  if (answer.kind === 'ok' && take === 'good') emit('taken')
}
async function choose(event: Event) {
  file.value = takeFiles(event)[0] ?? null
  report.value = null
  content.value = file.value
  if (!file.value) return
  foreign.value = await foreignText(file.value)
  if (!foreign.value) await send('none')
}
/** The text of a table whose columns are to be matched; empty for any other file. */
async function foreignText(chosen: File): Promise<string> {
  if (!props.columns || chosen.size > mostMatchedBytes) return ''
  const [{ foreignTable }, { decodeTable }] = await Promise.all([
    import('#core/formats/foreign-table'),
    import('#core/formats/bytes'),
  ])
  const decoded = decodeTable(new Uint8Array(await chosen.arrayBuffer()))
  if (!decoded.ok) return ''
  const { columns, isOwn } = foreignTable(decoded.text, props.columns, props.part ?? null)
  return !isOwn && columns.length > 1 ? decoded.text : ''
}
async function matched(text: string) {
  foreign.value = ''
  content.value = new Blob([text], { type: 'text/csv' })
  await send('none')
}
const close = () => {
  file.value = report.value = null
  problem.value = foreign.value = ''
}
</script>

<template>
  <label class="act-quiet focus-within:outline-2 focus-within:outline-sea"
    >Import CSV<input type="file" accept=".csv,text/csv" class="sr-only" @change="choose"
  /></label>
  <AppDialog
    v-if="file"
    :open="true"
    :title="`${title} from ${file.name}`"
    :wide="foreign !== ''"
    @update:open="close"
  >
    <LazyColumnChoice
      v-if="foreign && columns"
      :text="foreign"
      :columns="columns"
      :part="part ?? null"
      @ready="matched"
      @cancel="close"
    />
    <p v-if="problem" role="alert" class="border-l-4 border-bad pl-2">{{ problem }}</p>
    <div v-if="report" role="status">
      <p v-if="report.taken" class="text-base">
        <strong>{{ words(report.taken) }}</strong>
      </p>
      <p v-else>
        <strong>{{ report.good }} of {{ report.count }} rows can be taken.</strong>
        <template v-if="report.bad"
          >{{ report.bad }} {{ report.bad === 1 ? 'row has' : 'rows have' }} faults and
          {{ report.bad === 1 ? 'is' : 'are' }} left out.</template
        >
      </p>
      <div
        v-if="report.problems.length"
        class="mt-2 max-h-[40vh] overflow-y-auto border border-line"
        tabindex="0"
        role="region"
        aria-label="Faults"
      >
        <table class="w-full text-xs">
          <thead>
            <tr class="text-left text-soft">
              <th class="px-2 py-1 font-normal">Line</th>
              <th class="px-2 py-1 font-normal">Column</th>
              <th class="px-2 py-1 font-normal">Error</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(p, i) in report.problems" :key="i" class="border-t border-line">
              <td class="px-2 py-1">{{ p.line }}</td>
              <td class="px-2 py-1">{{ p.column || '–' }}</td>
              <td class="px-2 py-1 break-words">{{ p.reason }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="mt-3 flex gap-2">
        <button
          v-if="!report.taken"
          type="button"
          class="act"
          :disabled="report.good === 0"
          @click="send('good')"
        >
          Import the {{ report.good }} good rows</button
        ><button type="button" class="act-quiet" @click="close">
          {{ report.taken ? 'Done' : 'Import nothing' }}
        </button>
      </p>
    </div>
    <p v-else-if="!problem && !foreign" class="text-soft">Reading …</p>
  </AppDialog>
</template>
