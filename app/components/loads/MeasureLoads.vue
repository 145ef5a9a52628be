<script setup lang="ts">
import { writeReadingsCsv, readReadingsCsv } from '#core/formats/loads-csv'
import type { FoundLoad } from '#core/loads/detect'
import { likelyLoads, loadLibrary } from '#core/loads/library'
import { partKinds } from '#core/job/fields'
import { serialInstrument } from '../../device/serial'

/** The audit by measuring: record a shunt, switch loads on one by one, and name them. */
const { q } = useWriting()
const emit = defineEmits<{ saved: [count: number] }>()
const bench = useJob()
const who = useDeviceName()
const audit = useShuntAudit(bench.id)
const speed = ref(1)
const problem = ref('')
const running = computed(() => audit.state.value === 'connected' || audit.state.value === 'lost')
const stateWords = computed(
  () =>
    ({
      idle: audit.count.value > 0 ? 'Paused. Nothing is lost.' : '',
      connected: 'Connected',
      lost: 'Connection lost. Trying again; what was read is kept.',
      ended: 'The recording has ended.',
    })[audit.state.value],
)
const named = computed(() =>
  audit.found.value.filter((load) => nameOf(load).take && nameOf(load).name.trim() !== ''),
)
const likely = (load: FoundLoad) => likelyLoads(load.amps, load.kind === 'cycling')
const nameOf = (load: FoundLoad) =>
  audit.names.value[load.id] ?? { name: '', hours: null, period: 'even', take: true }
const minutes = (s: number) => `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, '0')}`
const runsOf = (load: FoundLoad) => {
  const last = load.runs.at(-1)!
  return load.kind === 'cycling'
    ? `${load.runs.length} times, ${load.duty} % of the time`
    : last.off === null
      ? `on since ${minutes(last.on)}`
      : `${minutes(last.on)} to ${minutes(last.off)}`
}

/** Takes a name, and with it the usual hours of such a load where none were typed. */
function choose(load: FoundLoad, text: string) {
  const typical = loadLibrary.find((l) => l.name === text)
  audit.name(load.id, {
    name: text,
    ...(typical && nameOf(load).hours === null
      ? { hours: typical.values.hours, period: typical.values.period }
      : {}),
  })
}
async function replay(event: Event) {
  problem.value = ''
  const file = await takeText(event, 4)
  if (!file || file.problem !== undefined) return void (problem.value = file?.problem ?? '')
  const read = readReadingsCsv(file.text)
  problem.value = tableProblem(file.name, read, read.readings.length) ?? ''
  if (!problem.value) audit.start(recordedInstrument(file.name, read.readings))
}
function save() {
  const when = new Date().toISOString()
  const measured = (value: unknown) => ({ value, how: 'measured' as const, when, by: who.value })
  const told = (value: unknown) => ({ value, how: 'customer' as const })
  const list = named.value
  for (const load of list) {
    const { name, hours, period } = nameOf(load)
    bench.addPart('loads', {
      name,
      supply: measured('dc'),
      amps: measured(Math.round(load.amps * 100) / 100),
      duty: measured(load.duty),
      surge: measured(Math.round(load.surge * 10) / 10),
      hours: hours === null ? { value: null } : told(hours),
      period: told(period),
    })
    audit.name(load.id, { take: false })
  }
  emit('saved', list.length)
}
const download = () => handOver('readings.csv', writeReadingsCsv(audit.readings))
const hoursField = partKinds.loads.fields.hours
const periodField = partKinds.loads.fields.period
</script>

<template>
  <section class="border border-line bg-card p-3" aria-labelledby="measure-loads">
    <h2 id="measure-loads" class="text-lg">Measure</h2>
    <p class="text-soft">
      Switch everything off and start. Then switch on one load at a time, wait until it is found, and name it.
    </p>
    <p class="mt-1 border-l-4 border-changed pl-2 text-xs">
      Connect a logger on a serial port, or try the simulated vehicle: it behaves like one, with noise, a
      cycling fridge and drop-outs. A recording goes the same way.
    </p>
    <div class="mt-2 flex flex-wrap items-center gap-2">
      <button v-if="!running" type="button" class="act" @click="audit.start(standInInstrument(speed))">
        {{
          audit.count.value > 0 && audit.source.value === 'Simulated vehicle' && audit.state.value !== 'ended'
            ? 'Go on'
            : 'Start the demo meter'
        }}
      </button>
      <button v-else type="button" class="act" @click="audit.stop()">Stop</button>
      <label class="flex items-center gap-2"
        >Speed
        <select v-model.number="speed" class="entry w-20" :disabled="running">
          <option :value="1">1 ×</option>
          <option :value="5">5 ×</option>
          <option :value="30">30 ×</option>
        </select></label
      >
      <ConnectLogger
        :disabled="running"
        @connect="
          (port, baudRate) =>
            audit.start(serialInstrument(port, baudRate, (audit.readings.at(-1)?.t ?? 0) + 1))
        "
      />
      <label class="act-quiet focus-within:outline-2 focus-within:outline-sea"
        >Replay a recording<input
          type="file"
          accept=".csv,text/csv"
          class="sr-only"
          :disabled="running"
          @change="replay"
      /></label>
      <button v-if="audit.count.value > 0 && !running" type="button" class="act-quiet" @click="download">
        Save readings
      </button>
      <button
        v-if="audit.count.value > 0 && !running"
        type="button"
        class="min-h-9 underline max-md:min-h-11"
        @click="audit.clear()"
      >
        Start again
      </button>
    </div>
    <p v-if="problem" role="alert" class="mt-2 border-l-4 border-bad pl-2">{{ problem }}</p>
    <p v-if="audit.full.value" role="alert" class="mt-2 border-l-4 border-bad pl-2">
      This browser has no room left to keep the recording. Save the readings before you leave the page.
    </p>

    <template v-if="audit.count.value > 0">
      <div class="mt-3 flex flex-wrap items-end gap-x-6 gap-y-1">
        <p>
          <span class="block text-xs text-soft">Current now</span
          ><span class="font-display text-2xl font-semibold">{{
            audit.now.value ? q(Math.max(0, -audit.now.value.amps), 'A') : '–'
          }}</span>
        </p>
        <p>
          <span class="block text-xs text-soft">Voltage</span
          ><span class="font-display text-2xl font-semibold">{{
            audit.now.value ? q(audit.now.value.volts, 'V') : '–'
          }}</span>
        </p>
        <p>
          <span class="block text-xs text-soft">Base current</span
          ><span class="font-display text-2xl font-semibold">{{
            audit.standing.value === null ? '–' : q(Math.max(0, audit.standing.value), 'A')
          }}</span>
        </p>
        <p
          class="ml-auto self-center"
          role="status"
          data-testid="stream-state"
          :data-state="audit.state.value"
          :class="audit.state.value === 'lost' ? 'text-changed font-semibold' : 'text-soft'"
        >
          {{ stateWords }} {{ audit.count.value }} readings, {{ minutes(audit.now.value?.t ?? 0) }}
        </p>
      </div>
      <LazyLiveCurrent
        :readings="audit.readings"
        :count="audit.count.value"
        :steps="audit.steps.value"
        class="mt-1"
      />

      <h3 class="mt-3 text-base">Found</h3>
      <ul v-if="audit.found.value.length" data-testid="found" aria-label="Loads found">
        <li
          v-for="load in audit.found.value"
          :key="load.id"
          class="grid items-end gap-2 border-t border-line py-2 sm:grid-cols-[8.5rem_minmax(9rem,1fr)_6rem_9.5rem_auto]"
        >
          <p>
            <span class="font-display text-lg font-semibold">{{ q(load.amps, 'A') }}</span><span
              v-if="load.surge >= 1.5"
              class="text-xs text-soft"
            >
              starts at {{ q(load.amps * load.surge, 'A') }}</span
            ><span class="block text-xs text-soft">{{ load.kind }}, {{ runsOf(load) }}</span>
          </p>
          <label
            ><span class="sr-only">What draws {{ q(load.amps, 'A') }}</span
            ><input
              class="entry"
              maxlength="200"
              :list="`likely-${load.id}`"
              placeholder="Name this load"
              autocomplete="off"
              :value="nameOf(load).name"
              @input="choose(load, ($event.target as HTMLInputElement).value)" /><datalist
              :id="`likely-${load.id}`"
            >
              <option v-for="l in likely(load)" :key="l.name" :value="l.name" /></datalist
          ></label>
          <ValueEntry
            :field="hoursField"
            label="Hours a day"
            hide-label
            empty="hours a day"
            :model-value="nameOf(load).hours"
            @update:model-value="audit.name(load.id, { hours: $event as number | null })"
          />
          <ValueEntry
            :field="periodField"
            label="When"
            hide-label
            empty="any time"
            :model-value="nameOf(load).period"
            @update:model-value="audit.name(load.id, { period: ($event as string) ?? 'even' })"
          />
          <label class="flex min-h-9 items-center gap-2 max-md:min-h-11"
            ><input
              type="checkbox"
              class="size-6"
              :checked="nameOf(load).take"
              @change="audit.name(load.id, { take: ($event.target as HTMLInputElement).checked })"
            />take</label
          >
        </li>
      </ul>
      <p v-else class="text-soft">No load found yet.</p>
      <button
        v-if="audit.found.value.length"
        type="button"
        class="act mt-2"
        :disabled="named.length === 0"
        @click="save"
      >
        {{
          named.length === 0
            ? 'Name what you want to keep'
            : `Keep ${named.length === 1 ? 'this load' : `these ${named.length} loads`}`
        }}
      </button>
    </template>
  </section>
</template>
