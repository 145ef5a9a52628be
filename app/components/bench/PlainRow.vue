<script setup lang="ts">
/** A row of a station that is no measured value: a text, a date or a choice of the job itself. */
defineProps<{ label: string; problem?: string }>()
</script>

<template>
  <label
    class="grid min-h-10 grid-cols-[7.5rem_minmax(0,1fr)] items-center gap-2 border-b border-line py-0.5 pl-2 leading-tight font-semibold max-md:min-h-11 max-md:py-0"
    ><span>{{ label }}</span
    ><slot /><span v-if="problem" role="alert" class="col-start-2 text-xs font-normal text-bad">{{
      problem
    }}</span></label
  >
</template>

<style scoped>
@reference '../../assets/main.css';
:slotted(.entry) {
  @apply min-h-8 font-normal max-md:min-h-11;
}
</style>
