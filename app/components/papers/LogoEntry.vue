<script setup lang="ts">
import { mostLogoLetters } from '#core/quotation/terms'

/** The logo of the workshop: chosen as a PNG or SVG file, kept as PNG. */
const logo = defineModel<string>({ required: true })
const problem = ref('')
async function take(event: Event): Promise<void> {
  const [file] = takeFiles(event)
  if (!file) return
  const picture = /^image\/(png|svg\+xml)$/.test(file.type) ? await logoPicture(file) : null
  if (!picture) problem.value = 'This is not a PNG or SVG picture.'
  else if (picture.length > mostLogoLetters)
    problem.value = 'This logo has too much detail. Choose a simpler picture.'
  else {
    problem.value = ''
    logo.value = picture
  }
}
</script>

<template>
  <div>
    <p class="font-semibold">Logo</p>
    <img
      v-if="logo"
      :src="logo"
      alt="Logo of the workshop"
      class="my-1 max-h-16 max-w-48 bg-white object-contain"
    />
    <p class="flex flex-wrap gap-2">
      <label class="act-quiet cursor-pointer focus-within:outline-2"
        >{{ logo ? 'Replace logo' : 'Choose logo'
        }}<input
          type="file"
          accept="image/png,image/svg+xml"
          class="sr-only"
          data-testid="logo-file"
          @change="take"
      /></label>
      <button v-if="logo" type="button" class="act-quiet" @click="logo = ''">Remove logo</button>
    </p>
    <p class="text-xs text-soft">PNG or SVG. It replaces the anchor at the top right of each paper.</p>
    <p v-if="problem" role="alert" class="text-bad">{{ problem }}</p>
  </div>
</template>
