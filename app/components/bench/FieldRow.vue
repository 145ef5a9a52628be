<script setup lang="ts">
import type { FieldPath } from '#core/job/document'
import type { Field } from '#core/job/fields'

/** One value of the survey in a row with its evidence. The foot of the station explains how to find it. */
const props = defineProps<{ path: FieldPath; name: string; field: Field; settles?: number }>()
const id = useId()
const wide = computed(() => isWide(props.field))
/** On a phone its label is above it. */
const isBelow = computed(() => isBroad(props.field))
</script>

<template>
  <div
    class="flex min-h-10 items-center gap-2 border-b border-line py-0.5 pl-1.5 max-md:min-h-11 max-md:py-0"
    :class="[
      wide && 'xl:col-span-2',
      isBelow && 'max-md:flex-wrap max-md:py-1',
      settles ? 'border-l-2 border-l-measure' : 'border-l-2 border-l-transparent',
    ]"
  >
    <label
      :for="id"
      class="w-[8.6rem] shrink-0 leading-tight font-semibold"
      :class="isBelow ? 'max-md:w-full' : 'max-md:w-[7.2rem]'"
      >{{ field.label }}</label
    >
    <FieldEntry :id="id" :path="path" :name="name" :field="field" />
  </div>
</template>
