<script setup lang="ts">
import { stages } from '#core/job/document'
import type { JobRow } from '../../utils/api'
import { shownDay } from '../../utils/craft'

/** Jobs of a craft, newest first. */
defineProps<{ jobs: readonly JobRow[] }>()
const verdictOf = ({ specifiedVerdict, verdict }: JobRow) => specifiedVerdict ?? verdict
</script>

<template>
  <ul v-if="jobs.length" aria-label="Jobs" class="border-y border-line bg-card">
    <li
      v-for="job in jobs"
      :key="job.id"
      class="relative border-line px-3 py-2 not-first:border-t hover:bg-paper/60"
    >
      <p class="flex items-center gap-2">
        <VerdictMark
          v-for="verdict in [verdictOf(job)].filter((one) => one !== null)"
          :key="verdict"
          :verdict="verdict"
        />
        <NuxtLink :to="`/jobs/${job.id}`" class="font-semibold underline after:absolute after:inset-0"
          >Job {{ job.number }}</NuxtLink
        >
        <span class="ml-auto text-soft">{{ stages[job.stage as keyof typeof stages] }}</span>
      </p>
      <p class="text-xs text-soft">
        {{ job.specifiedHeadline ? `As specified: ${job.specifiedHeadline}` : job.headline }} ·
        {{ shownDay(job.updatedAt) }}
      </p>
    </li>
  </ul>
  <p v-else class="border-y border-line bg-card px-3 py-4 text-center text-soft">No jobs yet.</p>
</template>
