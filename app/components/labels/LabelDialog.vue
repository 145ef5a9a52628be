<script setup lang="ts">
import type { Field, PartKindId } from '#core/job/fields'
import { shownValue } from '#core/job/shown'
import { readLabel } from '#core/labels/read-label'
import { shelfMatch } from '#core/labels/shelf-match'
import type { ShelfKindId, ShelfPart } from '#core/shelf/kinds'
import { shelfPage, wholeShelf } from '../../device/keeper'
import { endRecogniser } from '../../labels/recogniser'
import { readPhoto, type PhotoWords } from '../../labels/read-photo'
import type { LabelUse, NowKnown } from '../../utils/labels'

/** Reads a label from a photo, shows its values, and returns the ticked ones. */
const props = defineProps<{
  /** The labelled part: `Shore charger`. */
  title: string
  part: PartKindId
  fields: Readonly<Record<string, Field>>
  nominalV: number | null
  now: Readonly<Record<string, NowKnown | undefined>>
  /** Kinds of the shelf whose parts are offered. */
  shelfKinds: readonly ShelfKindId[]
  /** A photo that is there already. */
  first?: File
  /** Whether the photo is kept with the part. */
  keeps?: boolean
}>()
const emit = defineEmits<{ photo: [file: File]; use: [use: LabelUse]; pick: [part: ShelfPart]; close: [] }>()
const { q } = useWriting()

const address = ref('')
const photo = shallowRef<PhotoWords | null>(null)
const problem = ref('')
const progress = ref<number | null>(null)
const ticked = ref(new Set<string>())
const chosen = ref<string | null>(null)
const shelfPart = shallowRef<ShelfPart | null>(null)

const reading = computed(() => photo.value && readLabel(photo.value.words, props.part, props.nominalV))
const names = { model: 'Model', serial: 'Serial number' } as const

/** A code that is no address and no part of the shelf is a serial number. */
const codeSerial = computed(() =>
  photo.value?.codes.find(
    (code) => /^[A-Z0-9][A-Z0-9/.-]{4,40}$/iu.test(code) && code !== shelfPart.value?.code,
  ),
)
const offers = computed(() => {
  const read = reading.value
  if (!read) return []
  const values = read.values.flatMap(({ field: id, value, printed, box, isSure, doubt }) => {
    const [field, known] = [props.fields[id], props.now[id]]
    if (!field) return []
    const isSame = known?.value === value
    const isMeasured = known?.how === 'measured' && !isSame
    return {
      id,
      label: field.label,
      shown: shownValue(field, value, q),
      printed,
      box,
      isSure: isSure && !isMeasured,
      note: isMeasured ? 'You measured another value' : doubt,
      before: known && !isSame ? shownValue(field, known.value, q) : '',
      value,
    }
  })
  const named = (['model', 'serial'] as const).flatMap((id) => {
    const name = read[id]
    const fromCode = id === 'serial' ? codeSerial.value : undefined
    if (!name && !fromCode) return []
    const shown = fromCode ?? name?.text ?? ''
    const isSure = fromCode !== undefined || name?.isSure === true
    return {
      id,
      label: names[id],
      shown,
      printed: fromCode ? 'from the code' : shown,
      box: name?.box ?? null,
      isSure,
      note: isSure ? '' : 'Hard to read',
      before: '',
      value: shown,
    }
  })
  return [...values, ...named]
})
const boxes = computed(() =>
  offers.value.flatMap(({ id, box }) => (box ? [{ id, box, isTicked: ticked.value.has(id) }] : [])),
)
const count = computed(() => offers.value.filter(({ id }) => ticked.value.has(id)).length)

async function read(file: File) {
  forgetAddress()
  address.value = URL.createObjectURL(file)
  photo.value = null
  shelfPart.value = null
  problem.value = ''
  progress.value = 0
  emit('photo', file)
  const answer = await readPhoto(file, (share) => (progress.value = share))
  progress.value = null
  if (answer.kind === 'refused') {
    problem.value = answer.reason
    return
  }
  photo.value = answer.photo
  const offered = await partOn(answer.photo)
  shelfPart.value = offered
  ticked.value = new Set(offers.value.filter(({ isSure }) => isSure).map(({ id }) => id))
  if (offers.value.length === 0 && !offered)
    problem.value = props.keeps
      ? 'Nothing readable on this photo. It is kept.'
      : 'Nothing readable on this photo.'
}
/** The part of the shelf that the label is of; null if none. */
async function partOn({ words, codes }: PhotoWords): Promise<ShelfPart | null> {
  if (props.shelfKinds.length === 0 || !reading.value) return null
  const all = await wholeShelf(shelfPage)
  const parts = (all ?? []).filter(({ kind }) => props.shelfKinds.includes(kind))
  return shelfMatch(reading.value, {
    codes,
    parts,
    print: words.map(({ text }) => text).join(' '),
  })
}
function choose(event: Event) {
  const [file] = takeFiles(event)
  if (file) void read(file)
}
function toggle(id: string) {
  if (!ticked.value.delete(id)) ticked.value.add(id)
}
function use() {
  const taken = offers.value.filter(({ id }) => ticked.value.has(id))
  const textOf = (id: 'model' | 'serial') => taken.find((one) => one.id === id)?.shown ?? null
  emit('use', {
    values: taken.filter(({ id }) => id in props.fields).map(({ id, value }) => ({ field: id, value })),
    model: textOf('model'),
    serial: textOf('serial'),
  })
}
function forgetAddress() {
  if (address.value) URL.revokeObjectURL(address.value)
}
onMounted(() => {
  if (props.first) void read(props.first)
})
onBeforeUnmount(() => {
  forgetAddress()
  if (progress.value !== null) endRecogniser()
})
</script>

<template>
  <AppDialog :open="true" :title="`Read label: ${title}`" wide @update:open="emit('close')">
    <p v-if="!address" class="mb-3 text-soft">
      Fill the frame with the label, straight on, without glare. It is read on this device. Nothing is set
      before you say so.
    </p>
    <p v-if="problem" role="alert" class="mb-3 border-l-4 border-measure pl-2">{{ problem }}</p>
    <div v-if="address" class="grid gap-4 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
      <div class="min-w-0">
        <LabelPhoto
          :address="address"
          :photo="photo"
          :boxes="boxes"
          :chosen="chosen"
          @point="(id) => (chosen = id)"
        />
      </div>
      <div class="min-w-0">
        <div v-if="progress !== null" role="status">
          <p>Reading the label …</p>
          <progress class="mt-1 w-full" max="1" :value="progress" aria-label="Reading the label" />
          <p class="mt-2">
            <button type="button" class="act-quiet" @click="emit('close')">Stop</button>
          </p>
        </div>
        <template v-else-if="offers.length || shelfPart">
          <p v-if="shelfPart" class="mb-3 border-l-4 border-sea pl-2">
            Looks like <strong>{{ shelfPart.name }}</strong> on your shelf.
            <button type="button" class="min-h-8 underline max-md:min-h-11" @click="emit('pick', shelfPart)">
              Use {{ shelfPart.name }}
            </button>
          </p>
          <p
            v-for="words in reading?.contradictions"
            :key="words"
            class="mb-2 border-l-4 border-measure pl-2"
          >
            {{ words }}
          </p>
          <ul v-if="offers.length" class="border-y border-line" aria-label="Values on the label">
            <li
              v-for="offer in offers"
              :key="offer.id"
              class="border-line not-first:border-t"
              :class="chosen === offer.id && 'bg-paper'"
            >
              <label
                class="flex min-h-9 items-start gap-2 px-1 py-1 max-md:min-h-12"
                @mouseenter="chosen = offer.id"
                @focusin="chosen = offer.id"
              >
                <input
                  type="checkbox"
                  class="mt-1 size-4"
                  :checked="ticked.has(offer.id)"
                  @change="toggle(offer.id)"
                />
                <span class="min-w-0 grow break-words"
                  ><span class="text-soft">{{ offer.label }}</span
                  >{{ ' ' }}<strong class="font-semibold">{{ offer.shown }}</strong
                  ><span v-if="offer.before" class="text-soft"> instead of {{ offer.before }}</span
                  ><span v-if="offer.note" class="block text-xs text-measure"
                    >{{ offer.note }}: “{{ offer.printed }}”</span
                  ></span
                >
              </label>
            </li>
          </ul>
          <p v-if="offers.length" class="sticky bottom-0 bg-card py-3">
            <button type="button" class="act" :disabled="count === 0" @click="use">
              Use {{ count }} {{ count === 1 ? 'value' : 'values' }}
            </button>
          </p>
        </template>
      </div>
    </div>
    <div v-if="progress === null" class="mt-3 flex flex-wrap gap-2">
      <label
        class="focus-within:outline-2 focus-within:outline-sea md:hidden"
        :class="address ? 'act-quiet' : 'act'"
        >{{ address ? 'Take another photo' : 'Take a photo'
        }}<input type="file" accept="image/*" capture="environment" class="sr-only" @change="choose"
      /></label>
      <label class="act-quiet focus-within:outline-2 focus-within:outline-sea"
        >{{ address ? 'Choose another photo' : 'Choose a photo'
        }}<input type="file" accept="image/*" class="sr-only" @change="choose"
      /></label>
    </div>
  </AppDialog>
</template>
