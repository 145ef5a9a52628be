<script setup lang="ts">
import { stages } from '#core/job/document'

/** The job itself: who it is for, its number and its date. */
defineEmits<{ go: [station: StationId]; nextMeasurement: []; close: [] }>()
const bench = useJob()
const head = computed(() => bench.document?.job)
const numberProblem = ref('')
const texts = [
  ['name', 'Vehicle or vessel', 200],
  ['customer', 'Customer', 200],
  ['contact', 'Contact', 200],
  ['registration', 'Registration or hull number', 100],
  ['location', 'Where it is', 200],
] as const
const input = (event: Event) => (event.target as HTMLInputElement).value

/** A job always has a number: without one the last number stays. */
function setNumber(event: Event) {
  const number = input(event).trim()
  numberProblem.value = number === '' ? `Enter a job number. ${head.value!.number} stays until then.` : ''
  if (number !== '') bench.setHead('number', number)
}
function leaveNumber(event: Event) {
  numberProblem.value = ''
  ;(event.target as HTMLInputElement).value = head.value!.number
}
</script>

<template>
  <StationSheet
    station="job"
    @go="$emit('go', $event)"
    @next-measurement="$emit('nextMeasurement')"
    @close="$emit('close')"
  >
    <div v-if="head" class="grid grid-cols-1 pt-2 xl:grid-cols-2 xl:gap-x-5">
      <PlainRow label="Job number" :problem="numberProblem"
        ><input
          class="entry"
          maxlength="40"
          autocomplete="off"
          enterkeyhint="next"
          data-step
          :value="head.number"
          :aria-invalid="numberProblem !== ''"
          @input="setNumber"
          @blur="leaveNumber"
      /></PlainRow>
      <PlainRow v-for="[name, label, most] in texts" :key="name" :label="label"
        ><input
          class="entry"
          :maxlength="most"
          autocomplete="off"
          enterkeyhint="next"
          data-step
          :value="head[name] ?? ''"
          @input="bench.setHead(name, input($event))"
      /></PlainRow>
      <PlainRow label="Stage"
        ><select class="entry" data-step :value="head.stage" @change="bench.setHead('stage', input($event))">
          <option v-for="(word, stage) in stages" :key="stage" :value="stage">{{ word }}</option>
        </select></PlainRow
      >
      <PlainRow label="Due"
        ><input
          type="date"
          class="entry"
          data-step
          :value="head.dueDate ?? ''"
          @change="bench.setHead('dueDate', input($event))"
      /></PlainRow>
      <PlainRow label="Customer’s wishes" class="xl:col-span-2">
        <textarea
          class="entry py-1"
          rows="2"
          maxlength="5000"
          :value="head.wishes ?? ''"
          @input="bench.setHead('wishes', input($event))"
        />
      </PlainRow>
    </div>
  </StationSheet>
</template>
