<script setup lang="ts">
import { eventLines, eventWords } from '#core/simulation/events'
import type { RunResult } from '#core/simulation/runs'

/** Switching events and trips with their times; a press moves the playhead there. */
const { units } = useWriting()
const { result } = defineProps<{ result: RunResult }>()
const lines = computed(() => eventLines(result.events))
const emit = defineEmits<{ show: [t: number] }>()
</script>

<template>
  <div class="border border-line bg-card p-3">
    <h2 class="text-lg">Events</h2>
    <ol v-if="lines.length" class="max-h-[34rem] overflow-y-auto text-xs" tabindex="0" aria-label="Events">
      <li
        v-for="({ event, repeats, untilS }, i) in lines"
        :key="i"
        class="flex gap-2 border-t border-line py-1 first:border-0"
      >
        <button type="button" class="min-h-6 shrink-0 underline" @click="emit('show', event.t)">
          {{ momentOfRun(event.t, spanOfRun(result)) }}
        </button>
        <span>
          {{ eventWords(event, units)
          }}<template v-if="repeats">
            (then {{ repeats }} more changes until {{ momentOfRun(untilS, spanOfRun(result)) }})</template
          >
        </span>
      </li>
    </ol>
    <p v-else class="text-soft">Nothing switched or tripped.</p>
  </div>
</template>
