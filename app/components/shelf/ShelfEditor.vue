<script setup lang="ts">
import { labelledShelfKinds } from '#core/labels/kinds'
import { shelfFields, shelfKind, type ShelfKindId } from '#core/shelf/kinds'
import { asJson, ask, type ShelfRecord } from '../../utils/api'
import type { LabelUse, NowKnown } from '../../utils/labels'

/**
 * One part of the shelf: its data, its versions. Saving makes a new version; older ones stay for the jobs
 * that used them.
 */
const account = useAccount()
const props = defineProps<{
  kind: ShelfKindId
  code: string
  /** A photo of the label to begin with. */ photo?: File | null
}>()
const emit = defineEmits<{ saved: [code: string | null]; close: [] }>()
const who = useDeviceName()
const versions = ref<ShelfRecord[]>([])
const code = ref(props.code)
const name = ref('')
const maker = ref('')
const values = ref<Record<string, number | string>>({})
const fieldErrors = ref<Readonly<Record<string, string>>>({})
const problem = ref('')
const bad = ref<Record<string, string>>({})
const fields = shelfFields(props.kind)

onMounted(async () => {
  if (!props.code) return
  const answer = await ask<ShelfRecord[]>(`/api/shelf/${props.kind}/parts/${encodeURIComponent(props.code)}`)
  if (answer.kind !== 'ok') return void (problem.value = problemOf(answer, 'The server cannot be reached.'))
  versions.value = answer.data
  show(answer.data[0]!)
})
function show(part: ShelfRecord) {
  name.value = part.name
  maker.value = part.maker
  values.value = { ...part.values }
}
function set(field: string, value: number | string | null) {
  const { [field]: _old, ...rest } = values.value
  values.value = value === null ? rest : { ...rest, [field]: value }
}
/** Whether the label is being read. */
const first = shallowRef(props.photo ?? undefined)
const isReading = ref(first.value !== undefined)
function endReading() {
  isReading.value = false
  first.value = undefined
}
const now = computed<Readonly<Record<string, NowKnown>>>(() =>
  Object.fromEntries(Object.entries(values.value).map(([field, value]) => [field, { value }])),
)
function use(label: LabelUse) {
  values.value = {
    ...values.value,
    ...Object.fromEntries(label.values.map(({ field, value }) => [field, value])),
  }
  name.value ||= label.model ?? ''
  if (!props.code) code.value ||= label.model?.replace(/[^A-Z0-9._-]/gu, '-') ?? ''
  endReading()
}
/** Nothing is typed before its data are there: they would come over it. */
const isThere = computed(() => !props.code || versions.value.length > 0)
const hasBad = computed(() => Object.values(bad.value).some(Boolean))
async function save() {
  fieldErrors.value = {}
  const answer = await ask<ShelfRecord>(
    `/api/shelf/${props.kind}/parts/${encodeURIComponent(code.value.trim() || '?')}`,
    asJson('PUT', {
      version: versions.value[0]?.version ?? 0,
      who: signedAs(who.value),
      name: name.value,
      maker: maker.value,
      values: values.value,
    }),
  )
  if (answer.kind === 'ok') {
    if (versions.value[0]?.version !== answer.data.version) versions.value = [answer.data, ...versions.value]
    problem.value = ''
    return emit('saved', answer.data.code)
  }
  problem.value =
    answer.kind === 'refused'
      ? answer.status === 404
        ? 'The code may have letters, digits, dots and dashes, 40 at most.'
        : answer.refused.error
      : 'The server cannot be reached. Nothing was saved; what you typed is still here.'
  if (answer.kind === 'refused') fieldErrors.value = answer.refused.fields ?? {}
}
async function retire() {
  const answer = await ask(
    `/api/shelf/${props.kind}/parts/${encodeURIComponent(props.code)}?${new URLSearchParams({ version: String(versions.value[0]?.version ?? 0), who: signedAs(who.value) })}`,
    { method: 'DELETE' },
  )
  if (answer.kind === 'ok') emit('saved', null)
  else problem.value = problemOf(answer, 'The server cannot be reached.')
}
</script>

<template>
  <section
    class="border border-line bg-card p-4 lg:sticky lg:top-4 lg:max-h-[calc(100dvh-2rem)] lg:self-start lg:overflow-y-auto"
    :aria-label="props.code || `New ${shelfKind(kind).one.toLowerCase()}`"
    tabindex="-1"
  >
    <header class="flex items-start justify-between gap-3">
      <h2 class="text-xl">
        {{ props.code ? name || props.code : `New ${shelfKind(kind).one.toLowerCase()}` }}
      </h2>
      <button type="button" class="act-quiet" @click="emit('close')">Close</button>
    </header>
    <p v-if="versions.length" class="mt-1 flex flex-wrap items-center gap-x-2 text-xs text-soft">
      <span>Versions:</span
      ><button
        v-for="v in versions"
        :key="v.version"
        type="button"
        class="min-h-8 underline max-md:min-h-11"
        @click="show(v)"
      >
        {{ v.version }} ({{ v.createdBy }}, {{ ago(v.createdAt) }})
      </button>
    </p>
    <p v-if="!isThere" class="mt-2 text-soft" :role="problem ? 'alert' : 'status'">
      {{ problem || 'Fetching its data.' }}
    </p>
    <form v-else class="mt-2 grid gap-2" @submit.prevent="save">
      <p v-if="labelledShelfKinds.includes(kind) && account.mayDecide">
        <button type="button" class="act-quiet" @click="isReading = true">Read label</button>
      </p>
      <label class="block"
        ><span class="font-semibold">Name</span
        ><input v-model="name" class="entry" maxlength="120" autocomplete="off" required
      /></label>
      <div class="grid grid-cols-2 gap-2">
        <label class="block"
          ><span class="font-semibold">Code</span
          ><input
            v-model="code"
            class="entry"
            maxlength="40"
            autocomplete="off"
            :disabled="props.code !== ''"
            required
        /></label>
        <label class="block"
          ><span class="font-semibold">Maker</span
          ><input v-model="maker" class="entry" maxlength="120" autocomplete="off"
        /></label>
      </div>
      <div class="grid grid-cols-2 gap-2">
        <div v-for="[field, definition] in fields" :key="field">
          <ValueEntry
            :field="definition"
            :label="definition.label"
            :name="field"
            :model-value="values[field] ?? null"
            @update:model-value="set(field, $event)"
            @bad="bad[field] = $event"
          />
          <p v-if="fieldErrors[field]" class="text-xs text-bad">{{ fieldErrors[field] }}</p>
        </div>
      </div>
      <p v-if="problem" role="alert" class="border-l-4 border-bad pl-2">{{ problem }}</p>
      <p class="flex flex-wrap items-center gap-3">
        <button type="submit" class="act" :disabled="hasBad || !account.mayDecide">
          {{
            versions.length ? `Save as version ${versions[0]!.version + 1}` : 'Put on the shelf'
          }}</button><span v-if="hasBad" class="text-xs text-bad">Correct the marked fields first.</span
        ><span v-if="!account.mayDecide" class="text-xs text-soft">{{ needsInstaller }}</span
        ><button
          v-if="versions.length && account.mayDecide"
          type="button"
          class="min-h-9 underline hover:text-bad max-md:min-h-11"
          @click="retire"
        >
          Remove from shelf
        </button>
      </p>
    </form>
    <LazyLabelDialog
      v-if="isReading && isThere"
      :title="name || shelfKind(kind).one"
      :part="shelfKind(kind).fills ?? 'candidate'"
      :fields="shelfKind(kind).fields"
      :nominal-v="null"
      :now="now"
      :shelf-kinds="[]"
      :first="first"
      @use="use"
      @close="endReading"
    />
  </section>
</template>
