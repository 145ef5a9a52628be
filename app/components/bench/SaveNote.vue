<script setup lang="ts">
import { isReachable } from '../../device/connection'
import { keptHere } from '../../utils/kept-words'

/** The saving state in words; brief where there is little room. */
const props = defineProps<{ brief?: boolean }>()
const bench = useJob()
const words = computed(() => {
  switch (bench.save.kind) {
    case 'saved':
      return isReachable.value ? 'Saved' : 'Offline – all changes saved'
    case 'saving':
    case 'unsaved':
      return 'Saving…'
    case 'unreachable':
      return `Offline – ${keptHere(bench.isUnmade ? 1 : bench.pending)}`
    case 'conflict':
      return 'Two people changed the same value'
    case 'gone':
      return `Deleted elsewhere – ${keptHere(bench.pending)}`
    case 'full':
      return 'This browser has no room left to keep changes'
    case 'refused':
      return `Not saved: ${bench.save.error}`
  }
})
const briefly = computed(() => {
  switch (bench.save.kind) {
    case 'saved':
      return isReachable.value ? 'Saved' : 'Offline'
    case 'saving':
    case 'unsaved':
      return 'Saving…'
    case 'unreachable':
      return `Offline – ${bench.isUnmade ? 1 : bench.pending} kept here`
    case 'conflict':
      return 'Choose a value'
    default:
      return 'Not saved'
  }
})
const tone = computed(() => {
  switch (bench.save.kind) {
    case 'saved':
      return isReachable.value ? 'text-suits' : 'text-changed'
    case 'saving':
    case 'unsaved':
      return 'text-soft'
    case 'unreachable':
      return 'text-changed'
    default:
      return 'text-bad'
  }
})
</script>

<template>
  <span v-if="props.brief" class="text-xs font-normal whitespace-nowrap" :class="tone">{{
    briefly
  }}</span><span v-else role="status" data-testid="save-state" :data-state="bench.save.kind" :class="tone">{{
    words
  }}</span>
</template>
