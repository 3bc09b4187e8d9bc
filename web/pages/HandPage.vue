<template>
  <template v-if="student">
    <header class="page-head">
      <h1 dir="auto">
        <RouterLink :to="{ name: 'student', params: { studentId } }">{{ student.name }}</RouterLink>
      </h1>
      <p class="whose">the hand</p>
      <div class="actions">
        <ElButton @click="goToPatterns">Patterns<kbd class="on-button">P</kbd></ElButton>
      </div>
    </header>
    <div class="two">
      <div class="column">
        <form class="card measure" aria-label="Measure the hand" @submit.prevent="keep">
          <p class="eyebrow">Measure the left hand</p>
          <div class="fields">
            <FieldRow
              v-for="field in MEASURE_FIELDS.slice(0, 3)"
              :key="field.id"
              v-slot="{ id }"
              :label="field.label"
              :fault="form.faults.value[field.id]"
              :class="{ wide: field.id === 'comfortable' }"
            >
              <ElInput
                :id="id"
                :ref="(el: unknown) => field.id === 'comfortable' && (firstField = el as Focusable)"
                v-model="form.texts[field.id]"
                inputmode="decimal"
                @focus="drawn = field.drawing"
              >
                <template #suffix>mm</template>
              </ElInput>
            </FieldRow>
            <FieldRow label="Thumb">
              <ElSegmented
                v-model="form.thumb.value"
                :options="THUMBS"
                aria-label="Thumb"
                @focusin="drawn = 'thumb'"
              />
            </FieldRow>
          </div>
          <details>
            <summary>Finger lengths, and the day</summary>
            <div class="lengths">
              <FieldRow
                v-for="field in MEASURE_FIELDS.slice(3)"
                :key="field.id"
                v-slot="{ id }"
                :label="field.label"
                :fault="form.faults.value[field.id]"
              >
                <ElInput
                  :id="id"
                  v-model="form.texts[field.id]"
                  inputmode="decimal"
                  @focus="drawn = field.drawing"
                />
              </FieldRow>
            </div>
            <p v-if="form.fingersFault.value" class="fault" role="alert">{{ form.fingersFault.value }}</p>
            <FieldRow v-slot="{ id }" label="Measured on">
              <input :id="id" v-model="form.measuredOn.value" type="date" class="day" />
            </FieldRow>
          </details>
          <ElButton type="primary" native-type="submit" :disabled="!form.draft.value"
            >Keep<kbd class="on-button">⏎</kbd></ElButton
          >
          <p class="soft small">
            Gently, and never into pain. A child’s measures: with a guardian’s consent, kept no longer than
            needed.
          </p>
        </form>
        <aside class="card"><HandDrawing :shown="drawn" /></aside>
      </div>
      <div class="column">
        <section class="card growth" aria-label="Growth">
          <template v-if="file.history.value?.length && file.growth.value">
            <GrowthChart
              :history="file.history.value"
              :growth="file.growth.value"
              :wanted-mm="file.next.value?.spanMm"
              :wanted-name="file.next.value ? `frame of a ${sizeName(file.next.value.sizeId)}` : ''"
            />
            <p class="say">{{ file.growthSentence.value }} {{ file.nextSentence.value }}</p>
            <table class="ledger numbers history">
              <thead>
                <tr>
                  <th>Day</th>
                  <th class="number">Comfortable</th>
                  <th class="number">Reached</th>
                  <th class="number">Fingertip</th>
                  <th>Thumb</th>
                  <th>By</th>
                  <th />
                </tr>
              </thead>
              <tbody>
                <tr v-for="hand in file.history.value" :key="hand.id">
                  <td>{{ shortDay(hand.measuredOn) }}</td>
                  <td class="number strong">{{ mm(hand.comfortableSpanMm) }}</td>
                  <td class="number">{{ hand.reachedSpanMm === null ? '' : mm(hand.reachedSpanMm) }}</td>
                  <td class="number">
                    {{ hand.fingertipWidthMm === null ? '' : mm(hand.fingertipWidthMm) }}
                  </td>
                  <td>{{ hand.thumb === null ? '' : THUMB_NAMES[hand.thumb] }}</td>
                  <td>{{ hand.by }}</td>
                  <td>
                    <ElButton
                      text
                      size="small"
                      :aria-label="`Take out the hand of ${shortDay(hand.measuredOn)}`"
                      @click="file.remove(hand)"
                      >Take out</ElButton
                    >
                  </td>
                </tr>
              </tbody>
            </table>
          </template>
          <div v-else-if="file.history.value" class="empty">
            <h2>Not measured yet</h2>
            <p>
              Lay the hand on a ruler and type the span from 1 to 4. With four measurements over half a year
              or more, the growth is told, and when the next size will probably fit.
            </p>
          </div>
        </section>
        <section v-if="student.hand" class="card" aria-label="Fit">
          <p class="eyebrow">Every {{ family.id }} size against this hand, first position</p>
          <p class="say">{{ fitNow }}</p>
          <FitTable
            caption="Sizes"
            head="Size"
            :rows="fit.sizes.value"
            :is-reach-measured="student.hand.reachedSpanMm !== null"
          />
          <p class="heed">
            Too wide is cured by a smaller size, by reaching back with 1, or by the thumb; never by stretching
            4 upwards.
          </p>
        </section>
      </div>
    </div>
    <section v-if="student.hand" class="card below" aria-label="Instruments that fit">
      <p class="eyebrow">In the studio, what this hand can hold</p>
      <FitTable
        v-if="fit.instruments.value.length > 0"
        caption="Instruments"
        head="Instrument"
        :rows="fit.instruments.value"
        :is-reach-measured="student.hand.reachedSpanMm !== null"
      />
      <p v-else>No {{ family.id }} of the studio suits this hand.</p>
    </section>
    <section class="card mastery" aria-label="Patterns and positions">
      <p class="eyebrow">What {{ student.name }} has learned, in the teacher’s word</p>
      <div class="columns">
        <div>
          <MasteryField
            v-for="pattern in patternItems"
            :key="pattern.id"
            :what="stepsName(pattern)"
            :name="patternName(family, pattern)"
            :who="student.name"
            :state="mastery.stateOf('pattern', pattern.id)"
            @mark="(state) => void mastery.mark('pattern', pattern.id, state)"
          />
        </div>
        <div>
          <MasteryField
            v-for="position in family.positions"
            :key="position.id"
            what=""
            :name="positionName(position)"
            :who="student.name"
            :state="mastery.stateOf('position', position.id)"
            @mark="(state) => void mastery.mark('position', position.id, state)"
          />
        </div>
      </div>
    </section>
  </template>
</template>

<script setup lang="ts">
import { computed, nextTick, onMounted, ref, toRef } from 'vue'
import { useRouter } from 'vue-router'
import { comfortableSize, familyOf, patternsOf, WIDEST_STEP, type Thumb } from '#core'
import FitTable from '../features/patterns/FitTable.vue'
import MasteryField from '../features/patterns/MasteryField.vue'
import { useFit } from '../features/patterns/useFit'
import { useMastery } from '../features/patterns/useMastery'
import FieldRow from '../features/shell/FieldRow.vue'
import { useShortcuts } from '../features/shell/useShortcuts'
import GrowthChart from '../features/students/GrowthChart.vue'
import HandDrawing, { type HandField } from '../features/students/HandDrawing.vue'
import { MEASURE_FIELDS, useHandForm } from '../features/students/useHandForm'
import { useHandFile } from '../features/students/useHandFile'
import { useLesson } from '../stores/lesson'
import { useStudio } from '../stores/studio'
import { shortDay } from '../words/dates'
import { mm } from '../words/numbers'
import { FIT_NAMES, fitSentence, patternName, positionName, stepsName } from '../words/patterns'
import { sizeName } from '../words/trade'

interface Focusable {
  focus(): void
}

const THUMB_NAMES: Record<Thumb, string> = { straight: 'straight', double_jointed: 'double-jointed' }
const THUMBS = [
  { value: 'straight', label: 'Straight' },
  { value: 'double_jointed', label: 'Double-jointed' },
]

const props = defineProps<{ studentId: string }>()
const router = useRouter()
const studio = useStudio()
const lesson = useLesson()
const student = computed(() => studio.students?.find((s) => s.id === props.studentId))
const family = computed(() => familyOf(student.value?.family ?? 'violin'))
const file = useHandFile(toRef(props, 'studentId'), student)
const form = useHandForm()
const mastery = useMastery(student)
const drawn = ref<HandField>('span')
const firstField = ref<Focusable>()

onMounted(async () => {
  await Promise.all([
    studio.students ? undefined : studio.loadStudents(),
    studio.instruments ? undefined : studio.loadInstruments(),
  ])
})

const fit = useFit(
  family,
  computed(() => student.value?.hand),
  computed(() => {
    const instrument = student.value?.instrument
    return instrument ? { sizeId: instrument.sizeId, lengthMm: instrument.measurement?.lengthMm } : undefined
  }),
  computed(() => studio.instruments ?? []),
)
/** What the hand says of the instrument it has. */
const fitNow = computed(() => {
  const own = fit.sizes.value.find((row) => row.isOwn)
  if (!own) {
    const largest = student.value?.hand && comfortableSize(family.value, student.value.hand)
    return largest
      ? `The largest size that is comfortable: ${sizeName(largest)}.`
      : 'No size is comfortable yet.'
  }
  return `The ${own.name}: ${FIT_NAMES[own.fit.fit].toLowerCase()}. ${fitSentence(own.fit.fit)}`
})
/** Augmented steps are met late; those a student has anything to do with are shown all the same. */
const patternItems = computed(() =>
  patternsOf(family.value).filter(
    (p) => !p.steps.includes(WIDEST_STEP) || mastery.stateOf('pattern', p.id) !== 'not_met',
  ),
)

async function keep() {
  if (!form.draft.value) return
  await file.keep(form.draft.value)
  form.clear()
  await nextTick()
  firstField.value?.focus()
}

function goToPatterns() {
  lesson.begin(props.studentId)
  void router.push({ name: 'patterns' })
}

useShortcuts('Hand', [
  { key: 'm', does: 'Measure the span', run: () => firstField.value?.focus() },
  { key: 'p', does: 'Finger patterns', run: goToPatterns },
])
</script>

<style scoped>
h1 a {
  color: inherit;
  text-decoration: none;
}

.two {
  display: grid;
  grid-template-columns: 330px minmax(0, 1fr);
  align-items: start;
  gap: var(--gap);
  margin-bottom: var(--gap);
}

.column {
  display: grid;
  gap: var(--gap);
}

.measure,
.fields {
  display: grid;
  gap: 10px;
}

.wide :deep(.el-input__inner) {
  height: 44px;
  font-size: 24px;
  font-weight: 700;
}

.lengths {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 8px;
  margin: 8px 0;
}

summary {
  cursor: pointer;
  font-weight: 600;
}

.day {
  padding: 6px 10px;
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  background: var(--card);
  color: var(--ink);
  font: inherit;
}

.say {
  margin: 6px 0;
  font: 500 19px/1.35 var(--font-title);
}

.history td,
.history th {
  padding: 3px 6px;
  white-space: nowrap;
}

.strong {
  font-weight: 700;
}

.small {
  font-size: 13.5px;
}

.below {
  margin-bottom: var(--gap);
}

.columns {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 8px 40px;
  margin-top: 8px;
}

.columns > div {
  display: grid;
  align-content: start;
  gap: 6px;
}

@media (width <= 1000px) {
  .two,
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
