<script setup lang="ts">
/** A link to hand over, with its code. It is shown once. */
const props = defineProps<{ name: string; token: string; days: number }>()
defineEmits<{ close: [] }>()
const link = computed(() => `${window.location.origin}/join#invitation=${props.token}`)
</script>

<template>
  <section class="mb-4 flex flex-wrap gap-4 border border-edge bg-card p-4" aria-labelledby="link-title">
    <QrCode :address="link" label="Code of the link" />
    <div class="min-w-0 grow basis-60">
      <h2 id="link-title" class="text-lg">Link for {{ name }}</h2>
      <p>Let {{ name }} scan the code, or send the link. It works once, within {{ days }} days.</p>
      <ShownOnce :text="link" what="link" @close="$emit('close')" />
    </div>
  </section>
</template>
