<template>
  <template v-if="student">
    <header class="page-head">
      <h1 dir="auto">
        <RouterLink :to="{ name: 'student', params: { studentId } }">{{ student.name }}</RouterLink>
      </h1>
      <p class="whose">the hand</p>
      <div class="actions">
        <ElButton @click="goToPatterns">Patterns<KeyHint of="p" on-button /></ElButton>
      </div>
    </header>
    <div class="two">
      <div class="column"><HandMeasureForm ref="form" :before="file.spans.value" :save="file.keep" /></div>
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
            <HandHistoryTable :history="file.history.value" @remove="file.remove" />
          </template>
          <div v-else-if="file.history.value" class="empty">
            <h2>Not measured yet</h2>
            <p>
              Lay the hand on a ruler and type the span from 1 to 4. Four measurements over half a year tell
              how the hand grows, and when the next size will probably fit.
            </p>
          </div>
        </section>
        <section v-if="student.hand" class="card" aria-label="Fit">
          <p class="eyebrow">Every {{ family.id }} size against this hand, first position</p>
          <p class="say">{{ fitNow }}</p>
          <FitTable
            caption="Sizes"
            head="Size"
            :rows="fit"
            :is-reach-measured="student.hand.reachedSpanMm !== null"
          />
          <p class="heed">
            Too wide is cured by a smaller size, by reaching back with 1, or by the thumb. Never stretch 4
            upwards.
          </p>
        </section>
      </div>
    </div>
    <section v-if="student.hand" class="card below" aria-label="Instruments that fit">
      <p class="eyebrow">In the studio, what this hand can hold</p>
      <FitTable
        v-if="fitting.length > 0"
        caption="Instruments"
        head="Instrument"
        :rows="fitting"
        :is-reach-measured="student.hand.reachedSpanMm !== null"
      />
      <p v-if="more > 0" class="soft">And {{ more }} more: find them in the cupboard by their size.</p>
      <p v-if="fitting.length === 0">No {{ family.id }} of the studio suits this hand.</p>
    </section>
    <MasteryLists :student="student" />
  </template>
</template>

<script setup lang="ts">
import { computed, ref, toRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { comfortableSize, familyOf, knownSystem, typicalStringing } from '#core'
import FitTable from '../features/patterns/FitTable.vue'
import MasteryLists from '../features/patterns/MasteryLists.vue'
import { useFit, useFittingInstruments } from '../features/patterns/useFit'
import GrowthChart from '../features/students/GrowthChart.vue'
import HandHistoryTable from '../features/students/HandHistoryTable.vue'
import HandMeasureForm from '../features/students/HandMeasureForm.vue'
import { useHandFile } from '../features/students/useHandFile'
import { useLesson } from '../stores/lesson'
import { useStudio } from '../stores/studio'
import { studioStringing } from '../stores/stringing'
import { useShortcuts } from '../ui/useShortcuts'
import { FIT_NAMES, fitSentence } from '../words/hand-fit'
import { sizeName } from '../words/trade'
import KeyHint from '../ui/KeyHint.vue'

const props = defineProps<{ studentId: string }>()
const router = useRouter()
const studio = useStudio()
const lesson = useLesson()
const student = computed(() => studio.student(props.studentId))
const family = computed(() => familyOf(student.value?.family ?? 'violin'))
const system = computed(() =>
  knownSystem(studio.systemOf(student.value?.instrument ?? undefined, student.value)),
)
const file = useHandFile(toRef(props, 'studentId'), student)
const form = ref<InstanceType<typeof HandMeasureForm>>()

watch(
  () => props.studentId,
  (id) => void (student.value ?? studio.loadStudent(id)),
  { immediate: true },
)

const hand = computed(() => student.value?.hand)
const own = computed(() => {
  const instrument = student.value?.instrument
  return instrument
    ? { sizeId: instrument.sizeId, stringing: studioStringing(instrument, system.value.id) }
    : { sizeId: '', stringing: typicalStringing(family.value, '', system.value) }
})
const fit = useFit(hand, own)
const { instruments: fitting, more } = useFittingInstruments(hand, own)
/** What the hand says of the instrument it has. */
const fitNow = computed(() => {
  const now = fit.value.find((row) => row.isOwn)
  if (!now) {
    const largest = hand.value && comfortableSize(family.value, system.value, hand.value)
    return largest
      ? `The largest size that is comfortable: ${sizeName(largest)}.`
      : 'No size is comfortable yet.'
  }
  return `The ${now.name}: ${FIT_NAMES[now.fit.fit].toLowerCase()}. ${fitSentence(now.fit.fit)}`
})

function goToPatterns() {
  lesson.begin(props.studentId)
  void router.push({ name: 'patterns' })
}

useShortcuts('Hand', [
  { key: 'm', does: 'Measure the span', run: () => form.value?.begin() },
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
  grid-template-columns: minmax(0, 1fr);
  gap: var(--gap);
}

.say {
  margin: 6px 0;
  font: 500 19px/1.35 var(--font-title);
}

.below {
  margin-bottom: var(--gap);
}

@media (width <= 1000px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
