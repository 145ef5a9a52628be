<script setup lang="ts">
import { isReachable } from '../../device/connection'
import { keptHere } from '../../utils/kept-words'

/** The saving state in words; brief where there is little room. */
const props = defineProps<{ brief?: boolean }>()
const bench = useJob()
/** The words, those where there is little room, and the colour. */
const note = computed((): readonly [words: string, brief: string, tone: string] => {
  switch (bench.save.kind) {
    case 'saved':
      return isReachable.value
        ? ['Saved', 'Saved', 'text-suits']
        : ['Offline – all changes saved', 'Offline', 'text-changed']
    case 'saving':
    case 'unsaved':
      return ['Saving…', 'Saving…', 'text-soft']
    case 'unreachable':
      return [`Offline – ${keptHere(bench.waiting)}`, `Offline – ${bench.waiting} kept here`, 'text-changed']
    case 'conflict':
      return ['Two people changed the same value', 'Choose a value', 'text-bad']
    case 'gone':
      return [`Deleted elsewhere – ${keptHere(bench.waiting)}`, 'Not saved', 'text-bad']
    case 'full':
      return ['This browser has no room left to keep changes', 'Not saved', 'text-bad']
    case 'refused':
      return [`Not saved: ${bench.save.error}`, 'Not saved', 'text-bad']
  }
})
</script>

<template>
  <span v-if="props.brief" class="text-xs font-normal whitespace-nowrap" :class="note[2]">{{
    note[1]
  }}</span><span
    v-else
    role="status"
    data-testid="save-state"
    :data-state="bench.save.kind"
    :class="note[2]"
    >{{ note[0] }}</span
  >
</template>
