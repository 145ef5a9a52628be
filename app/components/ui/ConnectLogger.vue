<script setup lang="ts">
import { baudRates, choosePort, hasSerial, type SerialPort } from '../../device/serial'

/** Connects a logger of the shop on a serial port. Not shown in a browser that cannot read one. */
defineProps<{ disabled?: boolean }>()
const emit = defineEmits<{ connect: [port: SerialPort, baudRate: number] }>()
const baudRate = ref<number>(baudRates[0])
async function connect() {
  const port = await choosePort()
  if (port) emit('connect', port, baudRate.value)
}
</script>

<template>
  <span v-if="hasSerial()" class="inline-flex items-center gap-1">
    <button type="button" class="act-quiet" :disabled="disabled" @click="connect">Connect a logger</button>
    <label
      ><span class="sr-only">Bits per second of the port</span
      ><select v-model.number="baudRate" class="entry w-24" :disabled="disabled">
        <option v-for="rate in baudRates" :key="rate" :value="rate">{{ rate }}</option>
      </select></label
    >
  </span>
</template>
