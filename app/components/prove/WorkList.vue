<script setup lang="ts">
import { phases, type Phase, type WorkStep } from '#core/commissioning/order/step'
import { withStep } from '#core/job/proving-edits'
import type { Proving, StepTick } from '#core/job/proving'

/** The order of work: one thing after another, ticked, skipped or noted, by whom and when. */
const props = defineProps<{ steps: readonly WorkStep[]; proving: Proving }>()
const bench = useJob()
const who = useDeviceName()
const groups = computed(() =>
  (Object.keys(phases) as Phase[])
    .map((phase) => ({ phase, steps: props.steps.filter((step) => step.phase === phase) }))
    .filter(({ steps }) => steps.length > 0),
)
const tickOf = ({ id }: WorkStep): StepTick | null => props.proving.steps[id] ?? null
const now = (): Pick<StepTick, 'when' | 'by'> => ({
  when: new Date().toISOString(),
  by: signedAs(who.value),
})
function set(step: WorkStep, tick: StepTick | null): void {
  bench.edit((job) => withStep(job, step.id, tick))
  const isAllDone = props.steps.every(({ id }) => (id === step.id ? tick : props.proving.steps[id]))
  if (isAllDone) bench.reach('fitted')
}
function toggle(step: WorkStep) {
  const tick = tickOf(step)
  const note = tick?.note ? { note: tick.note } : {}
  set(step, tick?.state === 'done' ? null : { state: 'done', ...now(), ...note })
}
/** The step whose reason or note is being written. */
const writing = ref<string | null>(null)
const words = ref('')
const photos = ref<string | null>(null)
function write(step: WorkStep) {
  writing.value = writing.value === step.id ? null : step.id
  words.value = tickOf(step)?.note ?? ''
}
function keep(step: WorkStep, state: StepTick['state']) {
  const note = words.value.trim().slice(0, 2000)
  set(step, { state, ...now(), ...(note ? { note } : {}) })
  writing.value = null
}
const whenWords = ({ when, by }: StepTick): string =>
  `${new Date(when).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })}, ${by}`
</script>

<template>
  <div class="max-w-[52rem]">
    <section v-for="{ phase, steps: own } in groups" :key="phase" class="mt-4" :aria-label="phases[phase]">
      <h2 class="flex items-baseline gap-2 border-b border-line text-lg">
        {{ phases[phase]
        }}<span class="text-sm font-normal text-soft"
          >{{ own.filter((step) => tickOf(step)?.state === 'done').length }} of {{ own.length }}</span
        >
      </h2>
      <ol>
        <li
          v-for="step in own"
          :key="step.id"
          class="flex gap-3 border-b border-line py-2"
          :data-step="step.id"
        >
          <button
            type="button"
            role="checkbox"
            :aria-checked="tickOf(step)?.state === 'done'"
            :aria-label="step.words"
            class="mt-0.5 flex size-7 shrink-0 items-center justify-center rounded-sm border-2 max-md:size-11"
            :class="tickOf(step)?.state === 'done' ? 'border-suits bg-suits text-card' : 'border-edge'"
            @click="toggle(step)"
          >
            <span v-if="tickOf(step)?.state === 'done'" aria-hidden="true" class="text-xl leading-none"
              >✓</span
            ><span v-else-if="tickOf(step)?.state === 'put-off'" aria-hidden="true">…</span>
          </button>
          <div class="min-w-0 flex-1">
            <p
              class="cursor-pointer"
              :class="tickOf(step)?.state === 'done' && 'text-soft'"
              @click="toggle(step)"
            >
              {{ step.words }}
            </p>
            <p class="text-sm text-soft">{{ step.why }}</p>
            <p v-if="step.caution" class="mt-1 border-l-4 border-changed pl-2 text-sm">{{ step.caution }}</p>
            <p v-if="tickOf(step)" class="text-xs text-soft" data-testid="tick">
              {{ tickOf(step)!.state === 'done' ? 'Done' : 'Skipped' }} {{ whenWords(tickOf(step)!)
              }}<template v-if="tickOf(step)!.note">: {{ tickOf(step)!.note }}</template>
            </p>
            <form
              v-if="writing === step.id"
              class="mt-1 flex flex-wrap gap-2"
              @submit.prevent="keep(step, 'put-off')"
            >
              <label class="min-w-40 flex-1"
                ><span class="sr-only">Reason or note</span
                ><input v-model="words" class="entry w-full max-md:min-h-11" placeholder="Reason or note"
              /></label>
              <button type="submit" class="act-quiet max-md:min-h-11" :disabled="words.trim() === ''">
                Skip
              </button>
              <button type="button" class="act-quiet max-md:min-h-11" @click="keep(step, 'done')">
                Done, with note
              </button>
            </form>
            <StationPhotos v-if="photos === step.id" :station="`step-${step.id}`" class="mt-1" />
            <p class="mt-0.5 flex gap-4 text-xs">
              <button type="button" class="min-h-6 underline max-md:min-h-11" @click="write(step)">
                {{ writing === step.id ? 'Close' : 'Skip or add a note' }}
              </button>
              <button
                type="button"
                class="min-h-6 underline max-md:min-h-11"
                @click="photos = photos === step.id ? null : step.id"
              >
                Photos
              </button>
            </p>
          </div>
        </li>
      </ol>
    </section>
  </div>
</template>
