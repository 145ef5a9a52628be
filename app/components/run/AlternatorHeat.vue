<script setup lang="ts">
import {
  caseLimitC,
  fitHeat,
  minutesToLimit,
  steadyCaseC,
  usualHeat,
  usualTauMin,
  type CaseReading,
} from '#core/physics/alternator'
import { usualAirC } from '#core/system/alternators'
import { readCaseCsv } from '#core/formats/loads-csv'
import { partsOf, valueOf } from '#core/job/document'
import { driveTraces, type DriveTrace } from '#core/simulation/traces'
import { readVoltageLog } from '#core/formats/voltage-log'

/** Readings of the alternator's case fitted to the model: the result, its precision, and its effect. */
const { q } = useWriting()
const bench = useJob()
const who = useDeviceName()
const problem = ref('')
const part = computed(() => partsOf(bench.document!, 'alternators')[0]!)
const known = <T,>(name: string): T | null => valueOf<T>(part.value.part, name)
const readings = computed(() => known<readonly CaseReading[]>('temperatureReadings') ?? [])
const ratedA = computed(() => known<number>('ratedA'))
const ambientC = computed(() => known<number>('airC') ?? usualAirC(bench.document!.job.craft))
const oneReadingTauMin = computed(() => known<number>('tauMin') ?? usualTauMin)
const fit = computed(() =>
  ratedA.value && readings.value.length
    ? fitHeat(readings.value, ratedA.value, ambientC.value, { oneReadingTauMin: oneReadingTauMin.value })
    : null,
)
/** Two thirds of the rating at 4000 rpm of its shaft: a charge into an empty lithium bank. */
const loadA = computed(() => Math.round((ratedA.value ?? 100) * 0.66))
const words = (heat: typeof usualHeat): string => {
  const steady = steadyCaseC(loadA.value, ratedA.value ?? 100, 4000, ambientC.value, heat)
  const minutes = minutesToLimit(ambientC.value, steady, caseLimitC, heat)
  return `${q(steady, '°C')} in the end${minutes === Infinity ? ', under the limit' : `, the limit after ${q(minutes, 'min')}`}`
}
async function readLog(event: Event) {
  const file = await takeText(event, 1)
  if (!file || file.problem !== undefined) return void (problem.value = file?.problem ?? '')
  const read = readCaseCsv(file.text)
  problem.value = tableProblem(file.name, read, read.readings.length) ?? ''
  if (!problem.value)
    bench.setField(`${part.value.path}/temperatureReadings`, {
      value: read.readings.slice(0, 200),
      how: 'measured',
      when: new Date().toISOString(),
      by: who.value,
    })
}
const isComputer = computed(() => known<string>('regulator') === 'computer')
const setTrace = (trace: DriveTrace, how: 'measured' | 'assumed') =>
  bench.setField(`${part.value.path}/driveTally`, {
    value: trace,
    how,
    ...(how === 'measured' ? { when: new Date().toISOString(), by: who.value } : {}),
  })
function preset(id: string) {
  const scale = Number(known<string>('nominalV') ?? 12) / 12
  if (id in driveTraces)
    setTrace(
      driveTraces[id as keyof typeof driveTraces].trace.map(({ minutes, volts }) => ({
        minutes,
        volts: volts * scale,
      })),
      'assumed',
    )
}
async function readVoltages(event: Event) {
  const file = await takeText(event, 2)
  if (!file || file.problem !== undefined) return void (problem.value = file?.problem ?? '')
  const read = readVoltageLog(file.text)
  problem.value = tableProblem(file.name, read, read.trace.length) ?? ''
  if (!problem.value) setTrace(read.trace, 'measured')
}
</script>

<template>
  <div class="border border-line bg-card p-3" data-testid="alternator-heat">
    <h2 class="text-lg">Alternator heat</h2>
    <template v-if="fit">
      <p>
        <strong>{{ q(fit.heat.riseK, 'Δ°C') }}</strong> rise ± {{ q(fit.riseWithinK, 'Δ°C') }}, time constant
        <strong>{{ q(fit.heat.tauMin, 'min') }}</strong>{{ fit.tauFitted ? '' : ' (default)' }}, from
        {{ fit.readings }} {{ fit.readings === 1 ? 'reading' : 'readings'
        }}<template v-if="fit.readings > 1">, average error {{ q(fit.residualK, 'Δ°C') }}</template
        >.
      </p>
      <p class="mt-1 text-xs text-soft">
        At {{ q(loadA, 'A') }} and 4000 rpm of its shaft: {{ words(fit.heat) }}. A usual machine would be at
        {{ words(usualHeat) }}.
      </p>
    </template>
    <p v-else class="text-soft">
      No readings yet. Runs use a typical rise of {{ q(usualHeat.riseK, 'Δ°C') }}. Enter readings at the
      alternator station, or import a log with amps, shaft rpm, minutes and °C.
    </p>
    <label class="act-quiet mt-2 focus-within:outline-2 focus-within:outline-sea"
      >Import a log<input type="file" accept=".csv,text/csv" class="sr-only" @change="readLog"
    /></label>
    <template v-if="isComputer">
      <h3 class="mt-3 text-base">Voltage over the drive</h3>
      <p class="text-xs text-soft">
        The computer changes the voltage. Log one drive, or choose a typical one.
      </p>
      <p class="mt-1 flex flex-wrap gap-2">
        <label class="act-quiet focus-within:outline-2 focus-within:outline-sea"
          >Import a voltage log<input
            type="file"
            accept=".csv,text/csv"
            class="sr-only"
            @change="readVoltages"
        /></label>
        <label
          ><span class="sr-only">Typical drive</span
          ><select class="entry" @change="preset(($event.target as HTMLSelectElement).value)">
            <option value="">Choose a typical drive…</option>
            <option v-for="(t, id) in driveTraces" :key="id" :value="id">{{ t.title }}</option>
          </select></label
        >
      </p>
    </template>
    <p v-if="problem" role="alert" class="mt-1 text-bad">{{ problem }}</p>
  </div>
</template>
