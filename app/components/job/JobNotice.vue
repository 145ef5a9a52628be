<script setup lang="ts">
import { temporaryNumber } from '#core/job/number'
import { keptHere } from '../../utils/kept-words'

/** A message about the job, until it is dismissed; or the choices for a job that was deleted elsewhere. */
const bench = useJob()
const view = useView()
const device = useDeviceName()
function keepAsCopy() {
  const copy = bench.keepAsCopy(temporaryNumber(1))
  if (copy) void navigateTo(`/jobs/${copy}`)
}
function discard() {
  bench.discard()
  void navigateTo('/')
}
</script>

<template>
  <div
    v-if="bench.save.kind === 'gone'"
    role="alert"
    class="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line bg-window px-5 py-2"
  >
    <p class="grow basis-60">
      Somebody deleted this job.
      <template v-if="bench.waiting > 0">{{ keptHere(bench.waiting) }}.</template>
    </p>
    <button type="button" class="act-quiet" @click="keepAsCopy">Keep as new job</button
    ><button type="button" class="act-quiet" @click="discard">
      {{ bench.waiting > 0 ? 'Discard changes' : 'Close job' }}
    </button>
  </div>
  <div
    v-if="bench.conflict"
    role="alert"
    class="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line bg-window px-5 py-2"
  >
    <p class="grow basis-60">
      {{ savedBy(bench.conflict.theirs.updatedBy, device) }} changed the same value as you. Both values are
      kept.
    </p>
    <button type="button" class="act-quiet" @click="view.dialog = 'choice'">Choose value</button>
  </div>
  <p
    v-if="bench.notice"
    role="status"
    class="flex items-center justify-between gap-4 border-b border-line bg-window px-5 py-1.5"
  >
    <span>{{ bench.notice }}</span><button type="button" class="min-h-8 underline" @click="bench.notice = ''">
      Dismiss
    </button>
  </p>
</template>
