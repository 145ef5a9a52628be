<script setup lang="ts">
import type { AnyPart } from '#core/job/document'
import type { PartKindId } from '#core/job/fields'
import { valuesFromShelf } from '#core/shelf/kinds'

/** Which part of the shelf a part is, in which version; a newer one is offered, never forced. */
const props = defineProps<{ path: string; part: AnyPart; kind: PartKindId }>()
defineEmits<{ pick: [] }>()
const bench = useJob()
const shelf = useShelfVersions()
const used = computed(() => props.part.shelf)
const newer = computed(() => {
  const now = used.value && shelf.current.value.get(used.value.code)
  return now && now.version > used.value!.version && !now.retired ? now : null
})
watch(
  () => used.value?.code,
  (code) => {
    if (code) void shelf.look(code)
  },
  { immediate: true },
)
const takeNewer = () => {
  if (newer.value)
    bench.fillPart(props.path, { ...valuesFromShelf(newer.value, props.kind), name: props.part.name })
}
</script>

<template>
  <div class="flex flex-wrap items-center gap-x-3 gap-y-1 text-xs">
    <button type="button" class="act-quiet" @click="$emit('pick')">Choose from shelf</button>
    <span v-if="used" class="text-soft">{{ used.code }}, version {{ used.version }}</span>
    <span v-if="newer" class="text-changed"
      >Version {{ newer.version }} is on the shelf.
      <button type="button" class="min-h-8 underline max-md:min-h-11" @click="takeNewer">Use it</button></span
    >
  </div>
</template>
