<script setup lang="ts">
/** Actions of every view of a job: undo, redo, find, and show the keys. */
const bench = useJob()
const view = useView()
</script>

<template>
  <button type="button" class="act-quiet tiny" :disabled="!bench.canUndo" @click="bench.undo()">Undo</button>
  <button type="button" class="act-quiet tiny" :disabled="!bench.canRedo" @click="bench.redo()">Redo</button>
  <NuxtLink v-if="bench.craft" :to="`/craft/${bench.craft}`" class="act-quiet tiny">Logbook</NuxtLink>
  <slot />
  <button type="button" class="act-quiet tiny" @click="view.dialog = 'find'">
    Find <kbd class="key max-md:hidden">/</kbd>
  </button>
  <button type="button" class="act-quiet tiny max-md:hidden" @click="view.dialog = 'keys'">
    Keys <kbd class="key">?</kbd>
  </button>
</template>
