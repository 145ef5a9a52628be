<script setup lang="ts">
import type { Field } from '#core/job/fields'
import { ruleCatalogue, ruleTopics, resolveRules, type RuleId, type RuleOverrides } from '#core/rules/rules'

/** Every rule with its value, default and reason. */
const { q } = useWriting()
const props = defineProps<{ base: RuleOverrides; baseName: string }>()
const overrides = defineModel<RuleOverrides>({ required: true })
const rules = computed(() => resolveRules(props.base))
const isOwn = (id: RuleId): boolean => Object.hasOwn(overrides.value, id)
const valueOf = (id: RuleId) => (isOwn(id) ? overrides.value[id] : rules.value[id])
const only = ref(false)

function set(id: RuleId, value: string | number | null) {
  const { [id]: _old, ...rest } = overrides.value
  overrides.value = (
    value === null || value === rules.value[id] ? rest : { ...rest, [id]: value }
  ) as RuleOverrides
}
/** A number rule as a field of a form. */
const fieldOf = (id: RuleId): Field => {
  const rule = ruleCatalogue[id]
  return rule.kind === 'number'
    ? {
        type: 'quantity',
        label: rule.label,
        measure: rule.reason,
        unit: rule.unit,
        step: rule.unit === 'V' ? 0.1 : rule.unit === '×' ? 0.05 : 1,
        limits: rule.limits,
        plausible: rule.limits,
      }
    : { type: 'choice', label: rule.label, measure: rule.reason, options: rule.options }
}
const words = (id: RuleId, value: unknown): string => shownValue(fieldOf(id), value, q)
const topics = computed(() =>
  ruleTopics
    .map((topic) => ({ ...topic, ids: topic.ids.filter((id) => !only.value || isOwn(id)) }))
    .filter((topic) => topic.ids.length > 0),
)
const options = (id: RuleId) =>
  Object.entries((ruleCatalogue[id] as { options: Record<string, string> }).options)
const says = (id: RuleId, option: string) =>
  (ruleCatalogue[id] as { says: Record<string, string> }).says[option]
</script>

<template>
  <div>
    <label class="mb-2 flex min-h-9 items-center gap-2 max-md:min-h-11"
      ><input v-model="only" type="checkbox" class="size-5" />Only changed rules</label
    >
    <section v-for="topic in topics" :key="topic.title" class="mb-5">
      <h2 class="border-b-2 border-ink pb-1 text-lg">{{ topic.title }}</h2>
      <div
        v-for="id in topic.ids"
        :key="id"
        class="border-b border-line py-2.5"
        :class="isOwn(id) && 'border-l-4 border-l-sea pl-3'"
        :data-rule="id"
      >
        <template v-if="ruleCatalogue[id].kind === 'school'">
          <fieldset>
            <legend class="font-semibold">{{ ruleCatalogue[id].label }}</legend>
            <p class="text-xs text-soft">{{ ruleCatalogue[id].reason }}.</p>
            <div class="mt-1 grid gap-1 md:grid-cols-2">
              <label
                v-for="[option, word] in options(id)"
                :key="option"
                class="flex min-h-11 cursor-pointer items-start gap-2 border p-2"
                :class="valueOf(id) === option ? 'border-sea' : 'border-line'"
              >
                <input
                  type="radio"
                  :name="id"
                  class="mt-0.5 size-4"
                  :checked="valueOf(id) === option"
                  @change="set(id, option)"
                />
                <span
                  ><span class="font-semibold">{{ word }}</span
                  ><span v-if="option === rules[id]" class="text-xs text-soft"> ({{ baseName }})</span
                  ><span class="block text-xs text-soft">“{{ says(id, option) }}”</span></span
                >
              </label>
            </div>
          </fieldset>
        </template>
        <div v-else class="grid items-start gap-x-6 gap-y-1 md:grid-cols-[minmax(0,1fr)_11rem]">
          <div>
            <p class="font-semibold">{{ ruleCatalogue[id].label }}</p>
            <p class="text-xs text-soft">
              {{ ruleCatalogue[id].reason }}. {{ baseName }}: {{ words(id, rules[id]) }}.
            </p>
          </div>
          <ValueEntry
            :field="fieldOf(id)"
            :label="ruleCatalogue[id].label"
            hide-label
            :name="id"
            :model-value="valueOf(id) as number"
            @update:model-value="set(id, $event)"
          />
        </div>
        <button
          v-if="isOwn(id)"
          type="button"
          class="mt-1 min-h-8 text-xs underline max-md:min-h-11"
          @click="set(id, null)"
        >
          Back to {{ words(id, rules[id]) }}
        </button>
      </div>
    </section>
    <p v-if="topics.length === 0" class="text-soft">No rule is changed here. The {{ baseName }} applies.</p>
  </div>
</template>
