<template>
  <QuickDialog v-model="open" label="An exercise of the studio’s own" wide>
    <form class="own" @submit.prevent="save">
      <h2>{{ exercise?.id ? 'Change the exercise' : 'An exercise of your own' }}</h2>
      <div class="two">
        <FieldRow v-slot="{ id }" label="What it is called" :fault="faults.name">
          <ElInput :id="id" v-model="draft.name" maxlength="40" dir="auto" />
        </FieldRow>
        <FieldRow label="Its place in a day’s practice">
          <PlainSelect v-model="draft.part" label="Its place in a day’s practice" :options="PARTS" />
        </FieldRow>
        <FieldRow
          v-slot="{ id }"
          class="whole"
          label="How it is done, for a parent to read"
          :fault="faults.how"
        >
          <ElInput :id="id" v-model="draft.how" maxlength="400" dir="auto" />
        </FieldRow>
        <FieldRow v-slot="{ id }" label="What to stop at, beside pain" hint="may be left empty">
          <ElInput :id="id" v-model="draft.stop" maxlength="160" dir="auto" />
        </FieldRow>
        <FieldRow label="Tried first for" hint="before the usual exercises">
          <ElSelect v-bind="CHOICE" v-model="draft.mends" aria-label="Tried first for" />
        </FieldRow>
      </div>
      <div class="numbers">
        <FieldRow v-slot="{ id }" label="Minutes a day">
          <ElInputNumber :id="id" v-model="draft.minutes" :min="1" :max="60" :precision="0" />
        </FieldRow>
        <FieldRow v-slot="{ id }" label="Times a day" hint="if counted">
          <ElInputNumber :id="id" v-model="draft.times" :min="1" :max="200" :precision="0" />
        </FieldRow>
        <FieldRow v-slot="{ id }" label="From the age of" hint="if any">
          <ElInputNumber :id="id" v-model="draft.fromAge" :min="3" :max="20" :precision="0" />
        </FieldRow>
        <FieldRow label="For" :fault="faults.families">
          <ElCheckboxGroup v-model="draft.families" aria-label="Instruments">
            <ElCheckbox v-for="one in FAMILIES" :key="one.value" :value="one.value">{{
              one.label
            }}</ElCheckbox>
          </ElCheckboxGroup>
        </FieldRow>
      </div>
      <div class="notes">
        <FieldRow
          v-slot="{ id }"
          :label="`Notes, for a ${familyName(draft.writtenFor)}`"
          hint="as in D4 E F#/2 | A4/4"
          :fault="noteFault"
        >
          <ElInput
            :id="id"
            v-model="draft.notes"
            spellcheck="false"
            placeholder="empty where nothing is played"
          />
        </FieldRow>
        <FieldRow label="Written for">
          <PlainSelect v-model="draft.writtenFor" label="Written for" :options="FAMILIES" />
        </FieldRow>
        <FieldRow v-slot="{ id }" label="From a file" hint="MusicXML">
          <input :id="id" type="file" accept=".musicxml,.xml,.mxl" @change="bringIn" />
        </FieldRow>
      </div>
      <p v-if="pointed" class="pointed" aria-hidden="true">
        {{ pointed.before }}<mark>{{ pointed.at }}</mark>{{ pointed.after }}
      </p>
      <p v-if="fileSaid" :class="isFileFault ? 'fault' : 'soft'" role="status">{{ fileSaid }}</p>
      <NotationStaff v-if="score" :score="score" :at="undefined" label="The exercise as it is played" />
      <p class="soft">
        A note goes to the nearest of its name, or to the octave that it gives (D4). A finger follows a slash.
        Bars are passed over, and B is B natural. Other instruments play it in the octave that lies best, with
        their own fingers.
      </p>
      <p v-if="failure" class="fault" role="alert">{{ failure }}</p>
      <div class="acts">
        <ElButton type="primary" native-type="submit">Keep the exercise</ElButton>
        <ElButton @click="open = false">Leave it</ElButton>
      </div>
    </form>
  </QuickDialog>
</template>

<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { v4 as uuid } from 'uuid'
import { computed, reactive, ref, shallowRef, watch } from 'vue'
import {
  FAMILY_IDS,
  familyOf,
  fingerWritten,
  MENDED,
  parseWritten,
  placementContext,
  PRACTICE_PARTS,
  readMusicXml,
  SETUP_ITEM_IDS,
  takeScore,
  writtenText,
  type Mended,
  type WrittenFault,
} from '#core'
import type { OwnExercise } from '#contracts'
import NotationStaff from '../../notation/NotationStaff.vue'
import { useSettings } from '../../stores/settings'
import FieldRow from '../../ui/FieldRow.vue'
import PlainSelect from '../../ui/PlainSelect.vue'
import QuickDialog from '../../ui/QuickDialog.vue'
import { count } from '../../words/numbers'
import { MENDED_NAMES, PART_NAMES } from '../../words/plan'
import { setupName } from '../../words/setup-names'
import { FAMILY_NAMES, familyName } from '../../words/trade'
import { musicXmlFaultWords, writtenFaultWords } from '../../words/written'

/** A studio’s own exercise: what is said, how much of it, and the notes, as they are written or out of a file. */
const props = defineProps<{
  /** What is known of it: a whole one is changed, the rest of a new one is as usual. */
  exercise: Partial<OwnExercise> | undefined
}>()
const emit = defineEmits<{ kept: [exercise: OwnExercise] }>()
const open = defineModel<boolean>({ required: true })
const settings = useSettings()

const FAMILIES = FAMILY_IDS.map((value) => ({ value, label: FAMILY_NAMES[value] }))
const PARTS = PRACTICE_PARTS.filter((part) => part !== 'review').map((value) => ({
  value,
  label: PART_NAMES[value],
}))
/** Pain is no matter of an exercise, nor what is mended at a bench. */
const ITEMS = SETUP_ITEM_IDS.filter((id) => !['pain', 'size', 'nails', 'tuned'].includes(id))
const USUAL_MINUTES = 3
/** Bound as one: Element Plus types these single props as their own descriptions. */
const CHOICE: Record<string, unknown> = {
  multiple: true,
  filterable: true,
  collapseTags: true,
  maxCollapseTags: 3,
  teleported: false,
  popperOptions: { strategy: 'fixed' },
  placeholder: 'only where a teacher adds it',
  options: [
    ...MENDED.map((code) => ({ value: code, label: MENDED_NAMES[code] })),
    ...ITEMS.map((id) => ({ value: `setup ${id}`, label: `Setup: ${setupName(id)}` })),
  ],
}

interface Draft extends Omit<OwnExercise, 'id' | 'findings' | 'items' | 'isOffered'> {
  /** Findings by their codes, items of the setup behind `setup `. */
  mends: string[]
}
const draft = reactive<Draft>({
  name: '',
  how: '',
  stop: '',
  part: 'aim',
  families: [],
  minutes: USUAL_MINUTES,
  times: null,
  fromAge: null,
  mends: [],
  notes: '',
  writtenFor: 'violin',
})
const isTried = ref(false)
const failure = ref('')
const fileSaid = ref('')
const isFileFault = ref(false)

watch(
  open,
  (isOpen) => {
    if (!isOpen) return
    const of = props.exercise
    isTried.value = false
    failure.value = fileSaid.value = ''
    Object.assign(draft, {
      name: of?.name ?? '',
      how: of?.how ?? '',
      stop: of?.stop ?? '',
      part: of?.part ?? 'aim',
      families: [...(of?.families ?? FAMILY_IDS)],
      minutes: of?.minutes ?? USUAL_MINUTES,
      times: of?.times ?? null,
      fromAge: of?.fromAge ?? null,
      mends: [...(of?.findings ?? []), ...(of?.items ?? []).map((id) => `setup ${id}`)],
      notes: of?.notes ?? '',
      writtenFor: of?.writtenFor ?? 'violin',
    })
    look()
  },
  { immediate: true },
)

/** The line as it is played, or what is wrong with it; looked at when the typing rests. */
const fault = shallowRef<WrittenFault>()
const played = shallowRef<ReturnType<typeof takeScore>>()
const score = computed(() => (fault.value ? undefined : played.value))
function look() {
  const family = familyOf(draft.writtenFor)
  const read = parseWritten(draft.notes, family.tuning[0]!)
  const made = read.ok ? fingerWritten(placementContext(family, family.tuning), read.notes) : read
  fault.value = made.ok ? undefined : made.fault
  played.value =
    made.ok && made.notes.length > 0
      ? takeScore({ family, tuning: family.tuning }, made.notes, undefined)
      : undefined
}
const TYPING_RESTS_MS = 250
const lookSoon = useDebounceFn(look, TYPING_RESTS_MS)
watch(
  () => [draft.notes, draft.writtenFor],
  () => void lookSoon(),
)

const noteFault = computed(() => fault.value && writtenFaultWords(fault.value, draft.writtenFor))
const pointed = computed(() => {
  const of = fault.value
  if (!of) return undefined
  const { notes } = draft
  return {
    before: notes.slice(0, of.at),
    at: notes.slice(of.at, of.at + of.length),
    after: notes.slice(of.at + of.length),
  }
})
const faults = computed(() => ({
  name: isTried.value && draft.name.trim() === '' ? 'Give it a name.' : undefined,
  how: isTried.value && draft.how.trim() === '' ? 'Say how it is done.' : undefined,
  families: isTried.value && draft.families.length === 0 ? 'Choose at least one instrument.' : undefined,
}))

async function bringIn(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  const read = await readMusicXml(await file.text())
  input.value = ''
  isFileFault.value = !read.ok
  if (!read.ok) {
    fileSaid.value = musicXmlFaultWords(read.fault)
    return
  }
  draft.notes = writtenText(read.notes)
  if (draft.name.trim() === '' && read.title) draft.name = read.title.slice(0, 40)
  const rest =
    read.leftOut > 0 ? ` ${count(read.leftOut, 'note')} of chords, graces and other voices left out.` : ''
  fileSaid.value = `${count(read.notes.length, 'note')} brought in, as they sound.${rest}`
  look()
}

async function save() {
  isTried.value = true
  look()
  if (fault.value || Object.values(faults.value).some((one) => one !== undefined)) return
  const { mends, ...said } = draft
  const kept: OwnExercise = {
    ...said,
    name: said.name.trim(),
    how: said.how.trim(),
    families: [...said.families],
    findings: mends.filter((one): one is Mended => !one.startsWith('setup ')),
    items: ITEMS.filter((id) => mends.includes(`setup ${id}`)),
    isOffered: true,
    id: props.exercise?.id ?? `own-${uuid().slice(0, 8)}`,
  }
  failure.value = ''
  try {
    await settings.change({
      settings: (now) => ({
        ...now,
        exercises: now.exercises.some(({ id }) => id === kept.id)
          ? now.exercises.map((one) => (one.id === kept.id ? kept : one))
          : [...now.exercises, kept],
      }),
    })
  } catch (error) {
    failure.value = error instanceof Error ? error.message : 'It was not kept: try again.'
    return
  }
  open.value = false
  emit('kept', kept)
}
</script>

<style scoped>
.own {
  display: grid;
  gap: 10px;
}

h2 {
  font-size: 22px;
}

.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px 18px;
}

.whole {
  grid-column: 1 / -1;
}

.numbers {
  display: grid;
  grid-template-columns: repeat(3, 150px) minmax(0, 1fr);
  gap: 10px 18px;
}

.numbers :deep(.el-input-number) {
  width: 100%;
}

.numbers :deep(.el-checkbox) {
  margin-right: 14px;
}

.notes {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 130px 190px;
  gap: 10px 18px;
}

.notes input[type='file'] {
  width: 100%;
  padding-top: 6px;
}

.acts {
  display: flex;
  gap: 10px;
}

.acts .el-button {
  margin: 0;
}

.pointed {
  font: 500 17px/1.4 var(--font-text);
  white-space: pre-wrap;
}

mark {
  padding: 0 2px;
  border-bottom: 3px solid var(--danger);
  background: none;
  color: inherit;
}

@media (width <= 760px) {
  .two,
  .numbers,
  .notes {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
