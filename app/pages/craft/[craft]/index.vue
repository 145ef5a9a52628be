<script setup lang="ts">
import { crafts } from '#core/job/document'
import { entryOf, type EntryBody } from '#core/logbook/entry'
import { draftOfCraft, type CraftDraft } from '../../../utils/craft'

const route = useRoute()
const account = useAccount()
const id = () => String(route.params.craft)
const { whole, entries, series, checks, problem, load, send, startJob, addEntries, addPhoto } = useCraft(id)
const craft = computed(() => whole.value?.craft)
useHead({ title: () => `${craft.value?.name || 'Craft'} · Jovial Anchor` })
useKeys(shopKeys)
onMounted(load)
watch(id, load)

const isEditing = ref(false)
const isAdding = ref(false)
const subjects = computed(() => [
  ...new Set(entries.value.map(({ subject }) => subject).filter((subject) => subject !== '')),
])
const withLimit = computed(() => series.value.filter(({ limit, readings }) => limit && readings.length > 0))
const withoutLimit = computed(() =>
  series.value.filter(({ limit, readings }) => !limit && readings.length > 0),
)
async function save(draft: CraftDraft) {
  if (!craft.value) return
  if (await send(`/api/craft/${id()}`, 'PUT', { ...draft, version: craft.value.version }))
    isEditing.value = false
}
async function add(entry: EntryBody) {
  if (await addEntries([entry])) isAdding.value = false
}
const settle = (of: string, words: string) =>
  addEntries([entryOf({ kind: 'note', at: new Date().toISOString(), source: 'typed', words, corrects: of })])
const remind = (due: string, words: string) => send(`/api/craft/${id()}/reminders`, 'POST', { due, words })
</script>

<template>
  <main class="mx-auto max-w-7xl p-4 md:px-8 md:py-7">
    <p v-if="problem" role="alert" class="mb-3 border-l-4 border-bad bg-card px-3 py-2">{{ problem }}</p>
    <template v-if="craft && whole">
      <header class="mb-5 flex flex-wrap items-end gap-x-6 gap-y-3 border-b border-line pb-4">
        <div class="mr-auto min-w-0">
          <p class="text-soft"><NuxtLink to="/craft" class="underline">Craft</NuxtLink></p>
          <h1 class="text-3xl break-words">{{ craft.name || 'Unnamed craft' }}</h1>
          <p class="text-soft">
            {{
              [craft.kind && crafts[craft.kind], craft.registration, craft.location]
                .filter(Boolean)
                .join(' · ')
            }}
          </p>
          <p>
            <template v-if="craft.customerId"
              >Owner:
              <NuxtLink :to="`/customers/${craft.customerId}`" class="underline">{{
                craft.customer
              }}</NuxtLink><span v-if="craft.contact" class="text-soft">
                · {{ craft.contact }}</span
              ></template
            ><span v-else class="text-soft">No owner entered</span>
          </p>
          <p v-if="craft.notes" class="mt-1 max-w-prose whitespace-pre-line">{{ craft.notes }}</p>
        </div>
        <button v-if="account.mayDecide" type="button" class="act-quiet" @click="isEditing = true">
          Edit craft
        </button>
        <button type="button" class="act" @click="startJob()">New job for this craft</button>
      </header>

      <div class="grid grid-cols-1 gap-8 lg:grid-cols-[minmax(0,1fr)_22rem]">
        <div class="grid min-w-0 grid-cols-1 content-start gap-8">
          <CheckNextList :checks="checks" @settle="settle" />
          <section aria-labelledby="logbook">
            <div class="mb-2 flex flex-wrap items-center gap-2">
              <h2 id="logbook" class="mr-auto text-xl">Logbook</h2>
              <TableImport
                v-if="account.mayDecide"
                :path="`/api/craft/${craft.id}/log/table`"
                title="Entries"
                :words="({ added }: { added: number }) => `${added} new.`"
                @taken="load"
              />
              <a v-if="entries.length" :href="`/api/craft/${craft.id}/log/table`" download class="act-quiet"
                >Export CSV</a
              >
              <NuxtLink :to="`/craft/${craft.id}/test`" class="act-quiet">Battery test</NuxtLink>
              <button type="button" class="act" :aria-expanded="isAdding" @click="isAdding = !isAdding">
                New entry
              </button>
            </div>
            <div v-if="isAdding" class="mb-3 border border-edge bg-card p-3">
              <EntryForm :subjects="subjects" @add="add" />
            </div>
            <div v-if="withLimit.length" class="mb-3 grid grid-cols-1 gap-3 md:grid-cols-2">
              <SeriesCard v-for="one in withLimit" :key="one.id" :series="one" />
            </div>
            <details v-if="withoutLimit.length" class="mb-3">
              <summary class="min-h-9 font-semibold max-md:min-h-11">
                Readings without a limit ({{ withoutLimit.length }})
              </summary>
              <div class="mt-2 grid grid-cols-1 gap-3 md:grid-cols-2">
                <SeriesCard v-for="one in withoutLimit" :key="one.id" :series="one" />
              </div>
            </details>
            <LogEntries :craft="craft.id" :entries="entries" :subjects="subjects" @correct="add" />
          </section>
          <section v-if="whole.fleet.length" aria-labelledby="fleet">
            <h2 id="fleet" class="mb-2 text-xl">Fleet: {{ craft.type }}</h2>
            <FleetCompare :craft="craft" :fleet="whole.fleet" :own="series" />
          </section>
        </div>
        <div class="grid grid-cols-1 content-start gap-8">
          <section aria-labelledby="jobs">
            <h2 id="jobs" class="mb-2 text-xl">Jobs</h2>
            <CraftJobs :jobs="whole.jobs" />
            <MoveJob
              v-if="account.mayDecide && whole.jobs.length"
              :jobs="whole.jobs"
              :craft="craft.id"
              @moved="(to: string) => navigateTo(`/craft/${to}`)"
            />
            <FleetCopy v-if="whole.fleet.length" :fleet="whole.fleet" @copy="startJob" />
          </section>
          <section aria-labelledby="reminders">
            <h2 id="reminders" class="mb-2 text-xl">Reminders</h2>
            <ReminderList :reminders="whole.reminders" @changed="load" />
            <ReminderForm @add="remind" />
          </section>
          <CraftPhotos :craft="craft.id" :entries="entries" :of-jobs="whole.photos" :add="addPhoto" />
        </div>
      </div>
      <AppDialog v-model:open="isEditing" title="Edit craft">
        <p class="mb-3 text-soft">
          Jobs and papers keep what they were made with. The next job starts from this.
        </p>
        <CraftForm :draft="draftOfCraft(craft)" :owner="craft.customer" button="Save craft" @save="save" />
      </AppDialog>
    </template>
    <p v-else-if="!problem" class="text-soft" aria-busy="true">Loading the craft…</p>
  </main>
</template>
