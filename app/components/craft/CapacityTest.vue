<script setup lang="ts">
import { entryOf, type EntryBody } from '#core/logbook/entry'
import {
  capacityOf,
  countDischarge,
  mostRate,
  predictedDischarge,
  standInDischarge,
  usualFloorV,
  type DischargeTest,
} from '#core/logbook/discharge'

/** A guided discharge: set up, run to the floor, save the capacity. */
const props = defineProps<{ subject: string; ratedAh: number | null }>()
const emit = defineEmits<{ save: [entry: EntryBody] }>()
const { q } = useWriting()
const meter = useMeter()
const form = reactive({
  subject: props.subject,
  chemistry: 'lfp' as DischargeTest['chemistry'],
  ratedAh: props.ratedAh ?? undefined,
  nominalV: 12,
  amps: undefined as number | undefined,
  celsius: 20 as number | undefined,
  floorV: undefined as number | undefined,
})
const usualFloor = computed(() => usualFloorV(form.chemistry, form.nominalV))
const usualAmps = computed(() => (form.ratedAh ? Math.round(form.ratedAh / 5) : null))
const test = computed<DischargeTest | null>(() => {
  const {
    chemistry,
    ratedAh,
    nominalV,
    amps = usualAmps.value,
    celsius = 20,
    floorV = usualFloor.value,
  } = form
  return ratedAh && amps ? { chemistry, ratedAh, nominalV, amps, celsius, floorV } : null
})
const predicted = computed(() => (test.value ? predictedDischarge(test.value) : []))
const isHeavy = computed(() => test.value !== null && test.value.amps > mostRate * test.value.ratedAh)
const counted = computed(() => test.value && countDischarge(meter.readings.value, test.value.floorV))
const result = computed(() => (test.value && counted.value ? capacityOf(test.value, counted.value) : null))
watch(
  () => counted.value?.isAtFloor,
  (isAtFloor) => isAtFloor && meter.stop(),
)
const share = computed(() => (result.value && form.ratedAh ? (100 * result.value.ah) / form.ratedAh : 0))
const fastest = 3600
let seed = 0
const start = () => test.value && meter.play(standInDischarge(test.value, (seed += 1)), fastest)
const hours = (seconds: number): string => q(seconds / 3600, 'h')
function save() {
  if (!result.value || !counted.value || !form.ratedAh) return
  const { ah, tolerance, isLeast } = result.value
  emit(
    'save',
    entryOf({
      kind: 'reading',
      at: new Date().toISOString(),
      source: 'test',
      quantity: 'capacity',
      subject: form.subject.trim(),
      value: Number(ah.toFixed(1)),
      expected: form.ratedAh,
      tolerance: Number(tolerance.toFixed(1)),
      words: `${isLeast ? 'Ended before the floor: at least this. ' : ''}${q(counted.value.meanA, 'A')} for ${hours(counted.value.seconds)}`,
    }),
  )
}
</script>

<template>
  <div class="grid grid-cols-1 gap-6">
    <section aria-labelledby="set-up">
      <h2 id="set-up" class="text-xl">1. Set up</h2>
      <p class="mb-2 border-l-4 border-changed bg-card px-3 py-2">
        Charge the battery full and let it rest for an hour. Use a load that its cable and fuse carry for
        hours, keep it in sight, and disconnect all sources. The maker’s instructions come first.
      </p>
      <div class="grid grid-cols-2 gap-3 md:grid-cols-4">
        <label class="col-span-2 block"
          ><span class="mb-0.5 block text-xs text-soft">Battery</span
          ><input v-model="form.subject" class="entry" maxlength="200" autocomplete="off"
        /></label>
        <label class="block"
          ><span class="mb-0.5 block text-xs text-soft">Chemistry</span
          ><select v-model="form.chemistry" class="entry">
            <option value="lfp">Lithium (LFP)</option>
            <option value="lead">Lead-acid</option>
          </select></label
        >
        <label class="block"
          ><span class="mb-0.5 block text-xs text-soft">Voltage</span
          ><select v-model="form.nominalV" class="entry">
            <option v-for="volts in [12, 24, 36, 48]" :key="volts" :value="volts">{{ volts }} V</option>
          </select></label
        >
        <NumberEntry v-model="form.ratedAh" label="Rated capacity" unit="Ah" :least="1" :most="20000" />
        <NumberEntry v-model="form.amps" label="Load" unit="A" :usual="usualAmps" :least="0.1" :most="5000" />
        <NumberEntry v-model="form.celsius" label="Temperature" unit="°C" :least="-30" :most="60" />
        <NumberEntry
          v-model="form.floorV"
          label="Stop at"
          unit="V"
          :usual="usualFloor"
          :least="1"
          :most="100"
        />
      </div>
      <p v-if="test && predicted.length" class="mt-2 text-soft">
        A battery as good as its label reaches {{ q(test.floorV, 'V') }} after about
        {{ hours(predicted.at(-1)?.t ?? 0) }}.
      </p>
      <p v-if="isHeavy" class="mt-1 text-changed">
        This load is heavy: stay at or below {{ q(mostRate * (form.ratedAh ?? 0), 'A') }} so that the battery
        stays cool.
      </p>
    </section>
    <section aria-labelledby="run-test">
      <h2 id="run-test" class="text-xl">2. Discharge</h2>
      <MeterControls :meter="meter" :is-ready="test !== null" @start="start"
        >The demo meter runs an hour in a second. A recording is a CSV with the columns time (s), current (A)
        and voltage (V).</MeterControls
      >
      <LazyDischargeChart
        v-if="test"
        :predicted="predicted"
        :readings="meter.readings.value"
        :floor-v="test.floorV"
        :per-unit="3600"
      />
      <p v-if="counted && meter.readings.value.length" role="status">
        {{ q(counted.ah, 'Ah') }} taken in {{ hours(counted.seconds) }}, now
        {{ q(meter.readings.value.at(-1)?.volts ?? 0, 'V') }}.
        <strong v-if="counted.isAtFloor"
          >The floor is reached: switch the load off and charge the battery.</strong
        >
      </p>
    </section>
    <section v-if="result && !meter.isRunning.value" aria-labelledby="result">
      <h2 id="result" class="text-xl">3. Result</h2>
      <p class="text-lg" data-testid="test-result">
        <strong
          >{{ result.isLeast ? 'At least ' : '' }}{{ q(result.ah, 'Ah') }} ±
          {{ q(result.tolerance, 'Ah') }}</strong
        >
        of {{ q(form.ratedAh ?? 0, 'Ah') }}: {{ q(share, '%') }}
      </p>
      <p v-if="form.chemistry === 'lead'" class="text-soft">
        Counted for the 20 h rate at 25 °C, as the label does.
      </p>
      <button type="button" class="act mt-2" :disabled="form.subject.trim() === ''" @click="save">
        Save to logbook
      </button>
    </section>
  </div>
</template>
