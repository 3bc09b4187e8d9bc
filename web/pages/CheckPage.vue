<template>
  <section v-if="!student" class="card empty">
    <h1>Check</h1>
    <p>
      Choose whose hand to read: press <kbd>1</kbd> for today’s lessons, or <kbd>Ctrl K</kbd> and part of a
      name.
    </p>
  </section>
  <template v-else>
    <header class="page-head">
      <h1>Check</h1>
      <p class="whose">
        <RouterLink :to="{ name: 'student', params: { studentId: student.id } }">{{
          student.name
        }}</RouterLink>
        <template v-if="instrument"> · {{ instrumentKind(instrument.family, instrument.sizeId) }}</template>
      </p>
      <div class="actions">
        <span v-if="state === 'waiting'" class="waits" role="status">Not kept yet: it waits to be sent.</span>
        <ElButton :disabled="readings.length === 0" @click="clear">Clear</ElButton>
        <ElButton type="primary" :disabled="!canKeep" :loading="state !== 'idle'" @click="keepNow">
          Keep this verdict<kbd class="on-button">Ctrl ⏎</kbd>
        </ElButton>
      </div>
    </header>
    <section v-if="!instrument || !stringing" class="card empty">
      <h2>{{ instrument ? 'The string is not measured yet' : `${student.name} has no instrument yet` }}</h2>
      <p v-if="instrument">
        Places follow from the string length:
        <RouterLink :to="{ name: 'tapes' }">measure it at the tape bench</RouterLink>.
      </p>
      <p v-else>
        <RouterLink :to="{ name: 'student', params: { studentId: student.id } }"
          >Lend one from the student’s file</RouterLink
        >.
      </p>
    </section>
    <template v-else>
      <section class="card">
        <StringBoard
          :stringing="stringing"
          :label="`Fingerboard of ${instrument.label} with the places of the hand and where the fingers landed`"
          :tapes="tapes"
          :targets="boardTargets"
          :landings="landings"
          :active-string="choice.stringIndex.value"
          aim-only
        />
      </section>
      <div class="below">
        <section class="card sheet" aria-label="Readings">
          <div class="choices">
            <ElSegmented v-model="choice.stringIndex.value" :options="stringChoices" aria-label="String" />
            <ChoiceSelect
              v-model="choice.shapeId.value"
              label="Hand shape"
              :options="shapeChoices"
              class="shape"
            />
            <SystemChoice v-model="choice.systemId.value" :tuning="choice.tuning.value" />
          </div>
          <p v-if="choice.noPlace.value" class="fault" role="alert">{{ choice.noPlace.value }}</p>
          <ReadingSheet
            ref="sheetView"
            :rows="sheet.rows.value"
            :targets="choice.targets.value"
            :verdict="verdict"
            :tolerance-cents="choice.toleranceCents.value"
            @type="type"
            @done="keepNow"
          />
        </section>
        <VerdictCard
          v-if="verdict"
          :verdict="verdict as KeptVerdict"
          :family="choice.family.value.id"
          :note-count="readings.length"
        />
      </div>
    </template>
  </template>
</template>

<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed, nextTick, ref, watch } from 'vue'
import { noteName, type Finger } from '#core'
import type { KeptVerdict } from '#contracts'
import StringBoard from '../board/StringBoard.vue'
import ReadingSheet from '../features/check/ReadingSheet.vue'
import { useExercise, useTake, useTakeOnBoard } from '../features/check/useExercise'
import { useKeepCheck } from '../features/check/useKeepCheck'
import { useReadings } from '../features/check/useReadings'
import VerdictCard from '../features/check/VerdictCard.vue'
import { useLesson } from '../stores/lesson'
import ChoiceSelect from '../ui/ChoiceSelect.vue'
import SystemChoice from '../ui/SystemChoice.vue'
import { useShortcuts } from '../ui/useShortcuts'
import { instrumentKind, shapeName } from '../words/trade'

const { student } = storeToRefs(useLesson())

const choice = useExercise(student)
const { instrument, stringing } = choice
const sheetName = computed(() =>
  [student.value?.id, noteName(choice.open.value), choice.shape.value.id].join(' '),
)
const fingers = computed<(Finger | 0)[]>(() => choice.exercise.value.notes.map((n) => n.finger))
const sheet = useReadings(fingers, sheetName)
const { readings } = sheet
const take = useTake(choice, readings)
const { verdict } = take
const { boardTargets, tapes, landings } = useTakeOnBoard(choice, take)

const sheetView = ref<InstanceType<typeof ReadingSheet>>()
watch([() => student.value?.id, () => sheetView.value], () => void nextTick(() => sheetView.value?.begin()), {
  immediate: true,
})

const stringChoices = computed(() =>
  choice.tuning.value.map((open, value) => ({ value, label: noteName(open, { octave: false }) })),
)

const shapeChoices = computed(() =>
  choice.family.value.shapes.map(({ id }) => ({ value: id, label: shapeName(id) })),
)

const { state, keep, change } = useKeepCheck(student, sheetName)
const canKeep = computed(() => readings.value.length > 0 && !sheet.hasFault.value)

function type(finger: Finger | 0, text: string) {
  change()
  sheet.type(finger, text)
}

function clear() {
  change()
  sheet.clear()
}

async function keepNow() {
  if (!canKeep.value || !instrument.value) return
  const of = sheetName.value
  const kept = await keep({
    instrumentId: instrument.value.id,
    takenAt: new Date().toISOString(),
    exercise: { kind: 'shape', string: noteName(choice.open.value), shapeId: choice.shape.value.id },
    system: choice.systemId.value,
    readings: [...readings.value],
  })
  // Somebody may be on another string by now: the cursor is theirs.
  if (kept && sheetName.value === of) sheetView.value?.begin()
}

useShortcuts('Check', [{ key: 'r', does: 'Go to the readings', run: () => sheetView.value?.begin() }])
</script>

<style scoped>
.below {
  display: grid;
  grid-template-columns: minmax(0, 1.12fr) minmax(0, 1fr);
  gap: var(--gap);
  margin-top: var(--gap);
}

.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin-bottom: 6px;
}

.shape {
  width: 196px;
}

.waits {
  align-self: center;
  color: var(--brass-ink);
  font-weight: 600;
}

@media (width <= 900px) {
  .below {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
