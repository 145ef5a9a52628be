<script setup lang="ts">
import { changesToMake } from '#core/verdict/to-change'

/** The changes that the amber checks ask for, each once, with the checks that it settles. */
const { q } = useWriting()
const bench = useJob()
const judging = useJudging()
defineEmits<{ chosen: [key: string] }>()
const checks = computed(() => judging.assessment?.checks ?? [])
const topics = computed(() => new Map(checks.value.map(({ key, topic }) => [key, topic])))
const changes = computed(() =>
  judging.found ? changesToMake(judging.found, checks.value, bench.document!, q) : [],
)
/** The purpose of a change, in words: "settles float, equalise". */
const settled = (keys: readonly string[]) => keys.flatMap((key) => topics.value.get(key) ?? []).join(', ')
const isBarred = computed(() => judging.found?.verdict === 'does-not-suit')
</script>

<template>
  <section v-if="changes.length" aria-labelledby="to-change" class="border border-line bg-card p-3">
    <h3 id="to-change" class="text-lg">{{ isBarred ? 'Other changes' : 'What to change' }}</h3>
    <p v-if="isBarred" class="text-soft">These changes alone are not enough.</p>
    <ol class="mt-1" data-testid="to-change">
      <li
        v-for="change in changes"
        :key="`${change.remedy.id}@${change.remedy.on}`"
        class="border-line py-1 not-first:border-t"
      >
        <button
          type="button"
          class="text-left max-md:min-h-11"
          :disabled="change.settles.length === 0"
          @click="$emit('chosen', change.settles[0]!)"
        >
          <span class="font-semibold underline"
            ><template v-if="change.part">{{ change.part }}: </template>{{ change.label }}</span
          >.
          <span class="text-soft">{{ change.effort }}.</span>
        </button>
        <p v-if="settled(change.settles)" class="text-xs text-changed">
          Settles {{ settled(change.settles) }}.
        </p>
      </li>
    </ol>
  </section>
</template>
