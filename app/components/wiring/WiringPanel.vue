<script setup lang="ts">
import { fieldAt, partId } from '#core/job/document'
import { partKinds, type PartKind } from '#core/job/fields'
import type { CheckResult } from '#core/assessment/assess'
import type { WiredJob } from '#core/assessment/wired'
import type { Governs } from '#core/wiring/figures'
import type { Run } from '#core/wiring/network'
import { Ways } from '#core/wiring/paths'
import { isSizeUnknown, ratingWords, stateWords } from '#core/wiring/words'
import { canTry, remedyLabel, type RemedyRef } from '#core/remedies/catalogue'
import { verdictWords } from '#core/system/verdict'

/** The selection on the drawing: its numbers, checks and fields. */
const props = defineProps<{ wired: WiredJob; path: string }>()
const emit = defineEmits<{ remedy: [remedy: RemedyRef]; proposal: [] }>()
const { q } = useWriting()

const id = computed(() => partId(props.path))
const kind = computed(() =>
  props.path.startsWith('runs/') ? 'runs' : props.path.startsWith('fittings/') ? 'fittings' : null,
)
const run = computed(() =>
  kind.value === 'runs' ? props.wired.network.runs.find((one) => one.id === id.value) : undefined,
)
const post = computed(() =>
  kind.value === 'fittings' ? props.wired.network.posts.find((one) => one.id === id.value) : undefined,
)
const figures = computed(() => props.wired.runs.find((one) => one.id === id.value))
const there = computed(() => props.wired.fittings.find((one) => one.id === id.value))
const nameOf = (post: string): string =>
  props.wired.network.posts.find((one) => one.id === post)?.name ?? post
const unit = computed(() =>
  kind.value
    ? undefined
    : props.wired.network.units.find((one) => one.of === props.path || one.id === props.path),
)
const title = computed(() => {
  if (run.value) return `${run.value.number} · ${nameOf(run.value.from)} to ${nameOf(run.value.to)}`
  if (post.value) return `${post.value.fitting!.number} ${post.value.name}`.trim()
  return unit.value?.name ?? 'Nothing selected'
})
const state = computed(
  () => stateWords[run.value?.state ?? post.value?.state ?? unit.value?.state ?? 'found'],
)
const isSet = computed(() =>
  run.value
    ? run.value.lengthKnown === 'set' || run.value.areaKnown === 'set'
    : (post.value?.set.length ?? 0) > 0,
)
const checks = computed<readonly CheckResult[]>(() => {
  const order = ['does-not-suit', 'measure-first', 'suits-once-changed', 'suits']
  return props.wired.checks
    .filter(({ on }) => on === props.path)
    .toSorted((a, b) => order.indexOf(a.verdict) - order.indexOf(b.verdict))
})
const governsWords: Readonly<Record<Governs, string>> = {
  fuse: 'its fuse: one size smaller cannot carry its rating',
  current: 'its current: one size smaller gets too hot',
  voltage: 'its voltage drop',
  neighbour: 'the run it continues',
  set: 'set by hand',
  found: 'as it was found',
}
const lengthWords = (run: Run): string =>
  ({
    set: 'set by hand',
    found: 'as surveyed',
    usual: 'typical for such a run',
    open: 'unknown: the middle of the plausible range',
    sized: '',
  })[run.lengthKnown]
const percent = (share: number): string => `${(share * 100).toFixed(1)} %`

/** The settings, in the order of the form. */
const fields = computed(() => {
  if (!kind.value) return []
  const { fields: all } = partKinds[kind.value] as PartKind
  const isFuse = post.value?.kind === 'fuse'
  const canBeLeftOut = ['switch', 'stop', 'shunt', 'joint'].includes(post.value?.kind ?? '')
  const onBar = new Ways(props.wired.network).fusesOnBars.has(id.value)
  return Object.entries(all).filter(([name]) =>
    kind.value === 'runs'
      ? run.value?.returnOf === null || ['lengthM', 'areaMm2', 'count'].includes(name)
      : name === 'standsOn'
        ? onBar
        : isFuse || (name === 'absent' && canBeLeftOut) || ['ratedA', 'place', 'stud'].includes(name),
  )
})
const fieldPath = (name: string): string => `${props.path}/${name}`
const known = (name: string) => fieldAt(fieldPath(name)) !== null
</script>

<template>
  <section aria-labelledby="chosen" class="min-w-0">
    <h2 id="chosen" class="text-lg leading-tight">{{ title }}</h2>
    <p class="text-soft">
      {{ state }}<template v-if="isSet"> · set by hand</template>
      <button
        v-if="isSet"
        type="button"
        class="ml-2 font-semibold underline max-md:min-h-11"
        @click="emit('proposal')"
      >
        Back to the proposal
      </button>
    </p>
    <p v-if="post?.fitting?.reason" class="mt-1">{{ post.fitting.reason }}</p>

    <dl v-if="run && figures" class="mt-2 grid grid-cols-[auto_1fr] gap-x-3 gap-y-0.5">
      <dt class="text-soft">Largest current</dt>
      <dd>
        {{ q(figures.amps, 'A') }}<template v-if="figures.at">, {{ figures.at.toLowerCase() }}</template>
      </dd>
      <dt class="text-soft">Length</dt>
      <dd v-if="run.isStud">none: the fuse sits on the stud</dd>
      <dd v-else>{{ q(run.lengthM, 'm') }}, {{ lengthWords(run) }}</dd>
      <template v-if="run.areaMm2 !== null">
        <dt class="text-soft">Size</dt>
        <dd>
          {{ run.count > 1 ? `${run.count} × ` : '' }}{{ q(run.areaMm2, 'mm²')
          }}<template v-if="isSizeUnknown(run)"> or more: the fitted size is unknown</template
          ><template v-else>, decided by {{ governsWords[figures.governs] }}</template>
        </dd>
        <dt class="text-soft">Rated there</dt>
        <dd>{{ q(figures.carriesA!, 'A') }}</dd>
      </template>
      <dt class="text-soft">Voltage drop</dt>
      <dd>{{ q(figures.lostV, 'V') }}; {{ q(figures.heatW, 'W') }} of heat</dd>
      <dt class="text-soft">Voltage drop, whole path</dt>
      <dd>
        {{ q(figures.wayLostV, 'V') }}, {{ percent(figures.wayLostShare) }} of
        {{ percent(figures.allowedShare) }} allowed
      </dd>
      <template v-if="figures.leftV !== null">
        <dt class="text-soft">Voltage at its end</dt>
        <dd>{{ q(figures.leftV, 'V') }}</dd>
      </template>
    </dl>
    <dl v-else-if="post?.fitting && there" class="mt-2 grid grid-cols-[auto_1fr] gap-x-3 gap-y-0.5">
      <template v-if="post.fitting.ratedA !== null">
        <dt class="text-soft">Rating</dt>
        <dd>{{ ratingWords(post.fitting, q) }}</dd>
      </template>
      <dt class="text-soft">Current</dt>
      <dd>{{ q(there.throughA, 'A') }}</dd>
      <template v-if="post.kind === 'fuse'">
        <dt class="text-soft">Short circuit</dt>
        <dd>{{ q(there.shortA, 'A') }}; it interrupts {{ q(post.fitting.aicA ?? 0, 'A') }}</dd>
      </template>
    </dl>

    <table v-if="figures && figures.sizes.length > 1" class="mt-2 w-full text-sm">
      <caption class="text-left font-semibold">
        Smaller and larger size
      </caption>
      <thead class="text-soft">
        <tr>
          <th class="text-left font-normal">Size</th>
          <th class="text-right font-normal">carries</th>
          <th class="text-right font-normal">loses</th>
          <th class="pl-2 text-left font-normal">enough</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="size in figures.sizes"
          :key="size.areaMm2"
          :class="size.areaMm2 === run?.areaMm2 && 'font-semibold'"
          class="border-t border-line"
        >
          <td>{{ q(size.areaMm2, 'mm²') }}</td>
          <td class="text-right tabular-nums">{{ q(size.carriesA, 'A') }}</td>
          <td class="text-right tabular-nums">{{ q(size.lostV, 'V') }}</td>
          <td class="pl-2">
            {{ size.carries ? (size.loses ? 'yes' : 'loses too much') : 'carries too little' }}
          </td>
        </tr>
      </tbody>
    </table>

    <ul v-if="checks.length" class="mt-3 space-y-2">
      <li
        v-for="check in checks"
        :key="check.key"
        class="border-l-4 border-line pl-2"
        :data-check="check.key"
        :data-verdict="check.verdict"
      >
        <p class="flex items-start gap-1.5">
          <VerdictMark :verdict="check.verdict" size="small" class="mt-0.5 shrink-0" /><span class="sr-only"
            >{{ verdictWords[check.verdict] }}:
          </span>
          <span
            ><strong>{{ check.title }}.</strong> {{ check.summary }}</span
          >
        </p>
        <details class="text-sm text-soft">
          <summary class="cursor-pointer max-md:min-h-11">Calculation</summary>
          {{ check.formula }}
        </details>
        <p
          v-for="remedy in check.remedies"
          :key="`${remedy.id}${remedy.on}`"
          class="mt-1 flex flex-wrap items-center gap-2"
        >
          <span>{{ remedyLabel(remedy, q) }}</span>
          <button
            v-if="canTry(remedy)"
            type="button"
            class="act-quiet small text-xs"
            @click="emit('remedy', remedy)"
          >
            Use this
          </button>
        </p>
      </li>
    </ul>

    <div v-if="fields.length" class="mt-3 border-t border-line pt-2" data-sheet>
      <h3 class="font-sans font-semibold">Set by hand</h3>
      <template v-for="[name, field] in fields" :key="fieldPath(name)">
        <FieldRow v-if="known(name)" :path="fieldPath(name)" :name="name" :field="field" />
      </template>
    </div>
  </section>
</template>
