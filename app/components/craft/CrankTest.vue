<script setup lang="ts">
import { crankOf, standInCrank, weakCrankV } from '#core/logbook/crank'
import { entryOf, type EntryBody } from '#core/logbook/entry'

/** A recording of a start: how deep the voltage dips, and the resistance of the starting battery. */
const props = defineProps<{ subject: string }>()
const emit = defineEmits<{ save: [entries: readonly EntryBody[]] }>()
const { q } = useWriting()
const meter = useMeter()
const form = reactive({ subject: props.subject, nominalV: 12 })
const crank = computed(() => (meter.isRunning.value ? null : crankOf(meter.readings.value)))
const floorV = computed(() => weakCrankV(form.nominalV))
let seed = 0
const start = () => meter.play(standInCrank(form.nominalV, (seed += 1)), 1)
function save() {
  if (!crank.value) return
  const { amps, volts, milliohm } = crank.value
  const made = {
    kind: 'reading' as const,
    at: new Date().toISOString(),
    source: 'test' as const,
    subject: form.subject.trim(),
    words: `${q(amps, 'A')} while cranking`,
  }
  emit('save', [
    entryOf({ ...made, quantity: 'crankingVoltage', value: Number(volts.toFixed(2)) }),
    entryOf({ ...made, quantity: 'crankingResistance', value: Number(milliohm.toFixed(2)) }),
  ])
}
</script>

<template>
  <div class="grid grid-cols-1 gap-6">
    <section aria-labelledby="set-up">
      <h2 id="set-up" class="text-xl">1. Set up</h2>
      <p class="mb-2 border-l-4 border-changed bg-card px-3 py-2">
        Keep hands, hair and cables clear of belts and fans. Put the gearbox in neutral. Read the voltage at
        the battery posts, and clamp the starter lead. If the engine starts, stop it.
      </p>
      <div class="grid grid-cols-2 gap-3 md:grid-cols-4">
        <label class="block"
          ><span class="mb-0.5 block text-xs text-soft">Battery</span
          ><input v-model="form.subject" class="entry" maxlength="200" autocomplete="off"
        /></label>
        <label class="block"
          ><span class="mb-0.5 block text-xs text-soft">Voltage</span
          ><select v-model="form.nominalV" class="entry" @change="meter.clear()">
            <option v-for="volts in [12, 24]" :key="volts" :value="volts">{{ volts }} V</option>
          </select></label
        >
      </div>
    </section>
    <section aria-labelledby="run-test">
      <h2 id="run-test" class="text-xl">2. Crank for three seconds</h2>
      <MeterControls :meter="meter" is-ready @start="start"
        >A recording is a CSV with the columns time (s), current (A) and voltage (V), with a second of rest
        before the start.</MeterControls
      >
      <LazyDischargeChart
        v-if="meter.readings.value.length"
        :predicted="[]"
        :readings="meter.readings.value"
        :floor-v="floorV"
        :per-unit="1"
      />
      <p v-if="meter.readings.value.length && !meter.isRunning.value && !crank" role="alert" class="text-bad">
        There is no start in this recording, or no rest before it.
      </p>
    </section>
    <section v-if="crank" aria-labelledby="result">
      <h2 id="result" class="text-xl">3. Result</h2>
      <p class="text-lg" data-testid="test-result">
        <strong>{{ q(crank.milliohm, 'mΩ') }}</strong>, from {{ q(crank.restV, 'V') }} down to
        {{ q(crank.volts, 'V') }} at {{ q(crank.amps, 'A') }}
      </p>
      <p :class="crank.volts < floorV ? 'font-semibold text-bad' : 'text-soft'">
        {{
          crank.volts < floorV
            ? `The voltage stays below ${q(floorV, 'V')} while cranking: charge the battery full and test again. If it stays low, replace it.`
            : `The voltage stays above ${q(floorV, 'V')} while cranking.`
        }}
        Lowest dip: {{ q(crank.lowestV, 'V') }}.
      </p>
      <button type="button" class="act mt-2" :disabled="form.subject.trim() === ''" @click="save">
        Save to logbook
      </button>
    </section>
  </div>
</template>
