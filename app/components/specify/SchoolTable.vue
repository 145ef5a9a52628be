<script setup lang="ts">
import { verdictWords } from '#core/system/verdict'
import { inSentence } from '#core/units/format'

/** The approaches on which workshops differ, and the verdicts of the others for this job. */
const bench = useJob()
const { result } = useAsked(
  (engine, job, shop) => engine.schools(job, shop),
  () => bench.document,
)
const differing = computed(() =>
  (result.value ?? []).filter((view) => view.others.some((other) => other.differs.length > 0)),
)
const alike = computed(() =>
  (result.value ?? []).filter((view) => view.others.every((other) => other.differs.length === 0)),
)
const take = (rule: string, option: string) => bench.setRules({ ...bench.document!.rules, [rule]: option })
</script>

<template>
  <section v-if="result" class="border border-line bg-card p-3" aria-labelledby="schools">
    <h2 id="schools" class="text-lg">Other approaches</h2>
    <p class="text-soft">Workshops differ on these points. Choose another approach for this job.</p>
    <div
      v-for="view in differing"
      :key="view.rule"
      class="mt-2 border-t border-line pt-2"
      :data-school="view.rule"
    >
      <h3 class="text-base">{{ view.question }}</h3>
      <p>
        Here: <strong>{{ view.chosen }}</strong><span class="text-soft">{{
          view.own ? ', for this job' : ', the shop’s rule'
        }}</span>
      </p>
      <div
        v-for="other in view.others.filter((o) => o.differs.length)"
        :key="other.option"
        class="mt-1 border-l-4 border-line pl-2"
      >
        <p class="flex flex-wrap items-center gap-x-2">
          <span class="font-semibold">{{ other.words }}:</span
          ><span class="inline-flex items-center gap-1.5" :class="verdictColour[other.verdict]"
            ><VerdictMark :verdict="other.verdict" size="small" />{{ verdictWords[other.verdict] }}</span
          ><button
            type="button"
            class="min-h-8 underline max-md:min-h-11"
            :aria-label="`Use for this job: ${other.words}`"
            @click="take(view.rule, other.option)"
          >
            take for this job
          </button>
        </p>
        <ul class="list-disc pl-4 text-xs">
          <li v-for="words in other.differs.slice(0, 3)" :key="words">{{ words }}</li>
          <li v-if="other.differs.length > 3">and {{ other.differs.length - 3 }} more</li>
        </ul>
      </div>
    </div>
    <p v-if="alike.length" class="mt-2 border-t border-line pt-2 text-xs text-soft">
      The other approaches give the same result here:
      {{ alike.map((view) => inSentence(view.question)).join('; ') }}.
    </p>
  </section>
</template>
