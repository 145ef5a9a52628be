<script setup lang="ts">
import type { CheckNext } from '#core/logbook/flags'

/** Items to check when the craft comes back. Open items can be settled with a note. */
defineProps<{ checks: readonly CheckNext[] }>()
const emit = defineEmits<{ settle: [id: string, words: string] }>()
const settling = ref('')
const words = ref('')
const border = { limit: 'border-bad', trend: 'border-changed', open: 'border-measure' } as const
const head = { limit: 'Past the limit', trend: 'Trend', open: 'Left open' } as const
function settle(id: string) {
  emit('settle', id, words.value.trim())
  settling.value = ''
  words.value = ''
}
</script>

<template>
  <section aria-labelledby="check-next">
    <h2 id="check-next" class="mb-2 text-xl">Check next time</h2>
    <ul v-if="checks.length" class="grid gap-2" aria-label="Check next time">
      <li
        v-for="check in checks"
        :key="check.id"
        class="border-l-4 bg-card px-3 py-2"
        :class="border[check.from]"
      >
        <p>
          <span class="text-xs text-soft">{{ head[check.from] }}</span><br /><strong>{{
            check.words
          }}</strong>
        </p>
        <p class="text-soft">{{ check.why }}</p>
        <template v-if="check.from === 'open'">
          <form v-if="settling === check.id" class="mt-1 flex gap-2" @submit.prevent="settle(check.id)">
            <label class="grow"
              ><span class="sr-only">What was done about it</span
              ><input
                v-model="words"
                class="entry"
                maxlength="500"
                required
                placeholder="What was done about it"
            /></label>
            <button type="submit" class="act">Settle</button>
          </form>
          <button
            v-else
            type="button"
            class="mt-1 min-h-8 underline max-md:min-h-11"
            @click="settling = check.id"
          >
            Settle<span class="sr-only"> {{ check.words }}</span>
          </button>
        </template>
      </li>
    </ul>
    <p v-else class="border-l-4 border-suits bg-card px-3 py-2">Nothing is flagged.</p>
  </section>
</template>
