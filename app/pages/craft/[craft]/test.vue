<script setup lang="ts">
import { withReading } from '#core/job/proving-edits'
import type { EntryBody } from '#core/logbook/entry'

/**
 * A guided test of a battery of a craft; its result goes into the logbook. Opened from a test of Prove, it goes there
 * too, and into the diagnosis.
 */
const route = useRoute()
const id = () => String(route.params.craft)
const { whole, series, problem, load, addEntries } = useCraft(id)
const who = useDeviceName()
const bench = useJob()
useHead({ title: 'Battery test · Jovial Anchor' })
useKeys(shopKeys)
onMounted(load)
const kind = ref<'capacity' | 'cranking'>(route.query.kind === 'cranking' ? 'cranking' : 'capacity')
const asked = (name: string): string => String(route.query[name] ?? '')
/** The battery of the last test, and its rated capacity. */
const known = computed(() => series.value.find(({ quantity }) => quantity === 'capacity'))
const subject = computed(() => asked('battery') || known.value?.subject || 'House bank')
const ratedAh = computed(() => known.value?.limit?.whenNew ?? null)

async function save(entries: readonly EntryBody[]) {
  if (!(await addEntries(entries))) return
  const [first] = entries
  const [job, test] = [asked('job'), asked('test')]
  if (job && test && first?.value != null) {
    const reading = {
      value: first.value,
      when: first.at,
      by: signedAs(who.value),
      from: 'file' as const,
    }
    const trouble = await bench.open(job)
    if (trouble === null) bench.edit((document) => withReading(document, test, reading))
    await navigateTo({ path: `/jobs/${job}/prove` })
  } else await navigateTo(`/craft/${id()}`)
}
</script>

<template>
  <main class="mx-auto max-w-4xl p-4 md:px-8 md:py-7">
    <p class="text-soft">
      <NuxtLink :to="`/craft/${id()}`" class="underline">{{ whole?.craft.name || 'Craft' }}</NuxtLink>
    </p>
    <h1 class="text-3xl">Battery test</h1>
    <p v-if="problem" role="alert" class="my-3 border-l-4 border-bad bg-card px-3 py-2">{{ problem }}</p>
    <div role="group" aria-label="Test" class="my-4 flex gap-1">
      <button
        v-for="[one, word] in [
          ['capacity', 'Capacity'],
          ['cranking', 'Cranking'],
        ] as const"
        :key="one"
        type="button"
        class="min-h-9 rounded-sm border px-3 max-md:min-h-11"
        :class="kind === one ? 'border-ink bg-card font-semibold' : 'border-edge text-soft hover:border-ink'"
        :aria-pressed="kind === one"
        @click="kind = one"
      >
        {{ word }}
      </button>
    </div>
    <template v-if="whole">
      <CapacityTest
        v-if="kind === 'capacity'"
        :subject="subject"
        :rated-ah="ratedAh"
        @save="(one) => save([one])"
      />
      <CrankTest v-else :subject="asked('battery') || 'Starting battery'" @save="save" />
    </template>
    <p v-else-if="!problem" class="text-soft" aria-busy="true">Loading the craft…</p>
  </main>
</template>
