<script setup lang="ts">
import { useIdle } from '@vueuse/core'
import { entries } from '../../composables/focus'

/** A new version of the application waits until everything is saved and nobody types; then the page reloads. */
const pwa = useNuxtApp().$pwa
const sync = useSync()
const restMs = 3000
const { idle } = useIdle(restMs)
const isBusy = useFocusOn(`${entries}, [role="dialog"] *`)
const isReady = computed(() => pwa?.needRefresh ?? false)
const isFree = computed(() => sync.waiting === 0 && idle.value && !isBusy.value)
watch([isReady, isFree], ([ready, free]) => {
  if (ready && free) void pwa?.updateServiceWorker()
})
</script>

<template>
  <p
    v-if="isReady"
    role="status"
    class="border-b border-line bg-window px-5 py-1.5 text-center print:hidden"
    data-testid="new-version"
  >
    A new version is ready. It starts when everything is saved.
  </p>
</template>
