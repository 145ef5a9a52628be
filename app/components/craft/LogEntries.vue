<script setup lang="ts">
import { entryKinds, entrySources, type EntryBody, type LogEntry } from '#core/logbook/entry'
import { logQuantity, readingName } from '#core/logbook/quantities'
import { shownDay } from '../../utils/craft'

/** The logbook of a craft, newest first. Entries stay: a correction is next to the corrected entry. */
const props = defineProps<{ craft: string; entries: readonly LogEntry[]; subjects: readonly string[] }>()
const emit = defineEmits<{ correct: [entry: EntryBody] }>()
const { q } = useWriting()
const atOnce = 50
const shown = ref(atOnce)
const correcting = shallowRef<LogEntry | null>(null)
const corrected = computed(() => new Set(props.entries.flatMap(({ corrects }) => corrects ?? [])))
const newest = computed(() => props.entries.toReversed())

function headOf({ kind, quantity, subject, value, expected }: LogEntry): string {
  if (kind === 'reading' && quantity && value !== null) {
    const { unit } = logQuantity(quantity)
    const when = expected === null ? '' : ` (expected ${q(expected, unit, true)})`
    return `${readingName(quantity, subject)}: ${q(value, unit, true)}${when}`
  }
  return kind === 'replaced' ? `Replaced: ${subject}` : entryKinds[kind]
}
const extras = ({ serial, warrantyEnd }: LogEntry): string =>
  [serial && `serial ${serial}`, warrantyEnd && `warranty until ${shownDay(warrantyEnd)}`]
    .filter(Boolean)
    .join(', ')
</script>

<template>
  <div>
    <ol v-if="entries.length" aria-label="Entries" class="border-y border-line bg-card">
      <li
        v-for="entry in newest.slice(0, shown)"
        :key="entry.id"
        class="grid grid-cols-[6.5rem_1fr_auto] gap-x-3 border-line px-3 py-1.5 not-first:border-t"
        :class="corrected.has(entry.id) && 'text-soft line-through'"
      >
        <span class="text-soft">{{ shownDay(entry.at) }}</span>
        <span class="min-w-0 break-words">
          <strong class="font-semibold">{{ headOf(entry) }}</strong><template v-if="entry.words"
            >{{ entry.kind === 'reading' || entry.kind === 'replaced' ? ' · ' : ': '
            }}{{ entry.words }}</template
          ><span v-if="extras(entry)" class="text-soft"> · {{ extras(entry) }}</span>
          <a
            v-if="entry.kind === 'photo' && !corrected.has(entry.id)"
            :href="`/api/craft/${craft}/photos/${entry.id}`"
            target="_blank"
            class="my-1 block w-fit"
            ><img
              :src="`/api/craft/${craft}/photos/${entry.id}`"
              :alt="entry.words || 'Photograph'"
              class="size-20 border border-edge object-cover"
              loading="lazy"
          /></a>
          <span class="block text-xs text-soft"
            >{{ entry.by }}, {{ entrySources[entry.source]
            }}<template v-if="entry.corrects">, corrects an earlier entry</template></span
          >
        </span>
        <button
          v-if="!corrected.has(entry.id)"
          type="button"
          class="min-h-8 self-start text-soft underline max-md:min-h-11"
          @click="correcting = entry"
        >
          Correct<span class="sr-only"> {{ headOf(entry) }}</span>
        </button>
        <span v-else class="text-xs no-underline">corrected</span>
      </li>
    </ol>
    <p v-else class="border-y border-line bg-card px-3 py-6 text-center text-soft">
      No entries yet. A signed record adds the first by itself.
    </p>
    <p v-if="entries.length > shown" class="mt-2 text-center">
      <button type="button" class="act-quiet" @click="shown += 4 * atOnce">
        Show {{ Math.min(4 * atOnce, entries.length - shown) }} more of {{ entries.length }}
      </button>
    </p>
    <AppDialog v-if="correcting" :open="true" title="Correct entry" @update:open="correcting = null">
      <p class="mb-2 text-soft">The old entry stays in the logbook, crossed out.</p>
      <EntryForm
        :subjects="subjects"
        :corrects="correcting"
        @add="
          (entry) => {
            emit('correct', entry)
            correcting = null
          }
        "
      />
    </AppDialog>
  </div>
</template>
