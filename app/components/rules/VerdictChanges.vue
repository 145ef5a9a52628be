<script setup lang="ts">
import { verdictWords } from '#core/system/verdict'
import type { Preview } from '../../utils/api'

/** Whose verdict other rules change. */
defineProps<{ effect: Omit<Preview, 'next'> }>()
</script>

<template>
  <div>
    <p class="font-semibold">
      {{
        effect.changed.length === 0
          ? effect.judged === 0 && effect.unchecked > 0
            ? 'The effect is unknown'
            : 'No verdict would change'
          : `${effect.changed.length} ${effect.changed.length === 1 ? 'verdict' : 'verdicts'} would change`
      }}
    </p>
    <p class="text-xs text-soft">
      {{
        effect.judged + effect.unchecked < effect.open
          ? `${effect.judged} of ${effect.open} open jobs checked so far.`
          : `${effect.judged} open ${effect.judged === 1 ? 'job' : 'jobs'} checked.`
      }}
    </p>
    <p v-if="effect.unchecked" role="alert" class="text-xs text-bad">
      {{ effect.unchecked }} open {{ effect.unchecked === 1 ? 'job' : 'jobs' }} could not be checked. Change
      the rule again to retry.
    </p>
    <ul v-if="effect.changed.length" class="mt-1 max-h-72 overflow-y-auto">
      <li
        v-for="job in effect.changed"
        :key="job.id"
        class="flex items-center gap-1.5 border-b border-line py-1"
      >
        <VerdictMark :verdict="job.before" size="small" /><span aria-hidden="true">→</span
        ><VerdictMark :verdict="job.after" size="small" /><span class="min-w-0"
          ><NuxtLink :to="`/jobs/${job.id}`" class="underline">{{ job.number }} {{ job.name }}</NuxtLink
          ><span class="block text-xs"
            >{{ verdictWords[job.before] }} to {{ verdictWords[job.after].toLowerCase() }}</span
          ></span
        >
      </li>
    </ul>
  </div>
</template>
