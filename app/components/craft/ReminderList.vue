<script setup lang="ts">
import { dueGroupOf, dueGroups, reminderKinds, type DueGroup } from '#core/reminders/reminders'
import { asJson, ask } from '../../utils/api'
import { shownDay, todayHere, type ReminderRow } from '../../utils/craft'

/** Reminders in groups: overdue, this month, later. Those that are done can be opened again. */
const props = defineProps<{
  reminders: readonly ReminderRow[]
  withCraft?: boolean
  /** Whether the page has no heading above the list. */ isTop?: boolean
}>()
const emit = defineEmits<{ changed: [] }>()
const who = useDeviceName()
const problem = ref('')
const lastDone = shallowRef<ReminderRow | null>(null)
const today = todayHere()
const groups = computed(() => {
  const open = props.reminders.filter(({ doneAt }) => !doneAt)
  return (Object.keys(dueGroups) as DueGroup[])
    .map((group) => ({ group, rows: open.filter(({ due }) => dueGroupOf(due, today) === group) }))
    .filter(({ rows }) => rows.length > 0)
})
const done = computed(() => props.reminders.filter(({ doneAt }) => doneAt))
async function put(id: string, change: { done: boolean } | { due: string }): Promise<boolean> {
  const answer = await ask<ReminderRow>(
    `/api/reminders/${id}`,
    asJson('PUT', { who: signedAs(who.value), ...change }),
  )
  problem.value = problemOf(answer, 'The server cannot be reached. Nothing was saved.')
  if (answer.kind === 'ok') emit('changed')
  return answer.kind === 'ok'
}
async function finish(reminder: ReminderRow) {
  if (await put(reminder.id, { done: true })) lastDone.value = reminder
}
async function takeBack(reminder: ReminderRow) {
  if (await put(reminder.id, { done: false })) lastDone.value = null
}
</script>

<template>
  <div>
    <p v-if="problem" role="alert" class="mb-2 border-l-4 border-bad bg-card px-3 py-2">{{ problem }}</p>
    <p
      v-if="lastDone"
      role="status"
      class="mb-2 flex flex-wrap items-center gap-2 border-l-4 border-suits bg-card px-3 py-2"
    >
      Done: {{ lastDone.words }}
      <button type="button" class="underline" @click="takeBack(lastDone)">Undo</button>
    </p>
    <section v-for="{ group, rows } in groups" :key="group" class="mb-3" :aria-label="dueGroups[group]">
      <component :is="isTop ? 'h2' : 'h3'" class="mb-1 text-base" :class="group === 'overdue' && 'text-bad'">
        {{ dueGroups[group] }} <span class="font-normal text-soft">{{ rows.length }}</span>
      </component>
      <ul class="border-y border-line bg-card">
        <li
          v-for="reminder in rows"
          :key="reminder.id"
          class="grid grid-cols-[1fr_auto] items-start gap-x-3 border-line px-3 py-2 not-first:border-t"
          :data-reminder="reminder.kind"
        >
          <div class="min-w-0">
            <p class="break-words">{{ reminder.words }}</p>
            <p class="flex flex-wrap items-center gap-x-2 text-xs text-soft">
              {{ reminderKinds[reminder.kind] }} ·
              <label class="inline-flex items-center gap-1"
                ><span class="sr-only">Due day of {{ reminder.words }}</span
                ><input
                  type="date"
                  class="min-h-8 border-b border-edge bg-transparent max-md:min-h-11"
                  :value="reminder.due"
                  required
                  @change="put(reminder.id, { due: ($event.target as HTMLInputElement).value })"
              /></label>
              <template v-if="withCraft"
                >·
                <NuxtLink :to="`/craft/${reminder.craft}`" class="underline">{{
                  reminder.craftName || 'Unnamed craft'
                }}</NuxtLink><template v-if="reminder.customer">
                  · {{ reminder.customer }}</template
                ></template
              >
            </p>
          </div>
          <button type="button" class="act-quiet" @click="finish(reminder)">
            Done<span class="sr-only">: {{ reminder.words }}</span>
          </button>
        </li>
      </ul>
    </section>
    <p v-if="groups.length === 0" class="border-y border-line bg-card px-3 py-4 text-center text-soft">
      Nothing is due.
    </p>
    <details v-if="done.length" class="mt-2">
      <summary class="min-h-8 text-soft">Done ({{ done.length }})</summary>
      <ul class="mt-1">
        <li v-for="reminder in done" :key="reminder.id" class="flex flex-wrap gap-x-2 text-soft">
          {{ reminder.words }} Done on {{ shownDay(reminder.doneAt!) }} by {{ reminder.doneBy }}.
          <button type="button" class="underline" @click="takeBack(reminder)">Open again</button>
        </li>
      </ul>
    </details>
  </div>
</template>
