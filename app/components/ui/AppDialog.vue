<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'

defineProps<{
  title: string
  /** A dialog that must be answered has no way to be dismissed. */ must?: boolean
}>()
const open = defineModel<boolean>('open', { required: true })
</script>

<template>
  <Dialog :open="open" class="fixed inset-0 z-40 overflow-y-auto p-4" @close="must || (open = false)">
    <div class="fixed inset-0 bg-black/55" aria-hidden="true" />
    <DialogPanel class="relative mx-auto mt-[8vh] w-full max-w-xl border border-edge bg-card p-5 text-ink">
      <div class="mb-3 flex items-start justify-between gap-4">
        <DialogTitle class="text-xl">{{ title }}</DialogTitle>
        <button v-if="!must" type="button" class="act-quiet" @click="open = false">Close</button>
      </div>
      <slot />
    </DialogPanel>
  </Dialog>
</template>
