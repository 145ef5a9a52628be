<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'

defineProps<{
  title: string
  /** A dialog that must be answered has no way to be dismissed. */ must?: boolean
  /** Two columns fit side by side. */ wide?: boolean
}>()
const open = defineModel<boolean>('open', { required: true })
</script>

<template>
  <Dialog :open="open" class="fixed inset-0 z-40 overflow-y-auto p-4" @close="must || (open = false)">
    <div class="fixed inset-0 bg-black/55" aria-hidden="true" />
    <DialogPanel
      class="relative mx-auto w-full border border-edge bg-card p-5 text-ink"
      :class="wide ? 'mt-[3vh] max-w-5xl' : 'mt-[8vh] max-w-xl'"
    >
      <DialogTitle class="mb-3 min-h-9 pr-24 text-xl">{{ title }}</DialogTitle>
      <slot />
      <!-- Last, so that the dialog's content has the focus: a space typed there must not close it. -->
      <button v-if="!must" type="button" class="act-quiet absolute top-5 right-5" @click="open = false">
        Close
      </button>
    </DialogPanel>
  </Dialog>
</template>
