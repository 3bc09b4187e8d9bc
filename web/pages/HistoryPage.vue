<template>
  <template v-if="student">
    <header class="page-head">
      <h1 dir="auto">
        <RouterLink :to="{ name: 'student', params: { studentId } }">{{ student.name }}</RouterLink>
      </h1>
      <p class="whose">over time{{ checks.length > 0 ? `, ${count(checks.length, 'check')}` : '' }}</p>
      <div class="actions">
        <ElButton :disabled="!chosen" @click="step(-1)">Earlier<KeyHint of="←" on-button /></ElButton>
        <ElButton :disabled="!chosen" @click="step(1)">Later<KeyHint of="→" on-button /></ElButton>
        <ElButton type="primary" @click="goToCheck">Check<KeyHint of="c" on-button /></ElButton>
      </div>
    </header>
    <section v-if="history.data.value && checks.length === 0" class="card empty">
      <h2>No checks yet</h2>
      <p>Press <KeyHint of="c" /> for the first: what the hand does over months is drawn here.</p>
    </section>
    <div v-else-if="history.data.value" class="columns">
      <section class="card charts" aria-label="Over time">
        <MeasureChart
          v-for="(series, index) in drawn"
          :key="series.measure"
          :series="series"
          :time="time"
          :has-dates="index === drawn.length - 1"
          :tolerance-cents="student.toleranceCents"
          :is-quiet="noTrend !== ''"
          :chosen="[chosen?.earlier, chosen?.later]"
          @choose="(id) => chosen && (chosen.later = id)"
        />
        <p v-if="noTrend || waits" class="soft">{{ noTrend }} {{ waits }}</p>
        <PracticeChart v-if="entries.length > 0" :weeks="practiceWeeks(entries)" :time="time" />
        <BesideChart :spans="spans" :time="time" />
        <EffectList :effects="effects" />
        <p v-if="rejudgedCount > 0" class="soft">
          {{ count(rejudgedCount, 'check') }} judged before the instrument was measured again: the first
          verdict is kept, the new one stands beside it.
        </p>
      </section>
      <SideBySide
        v-if="chosen"
        v-model:earlier="chosen.earlier"
        v-model:later="chosen.later"
        :checks="checks"
      />
    </div>
  </template>
</template>

<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { familyOf, marksWithIds } from '#core'
import { call } from '../api/client'
import { useLoaded } from '../api/useLoaded'
import BesideChart from '../features/history/BesideChart.vue'
import EffectList from '../features/history/EffectList.vue'
import MeasureChart from '../features/history/MeasureChart.vue'
import { MEASURES, seriesOf, spansOf, timeOf, usualPair } from '../features/history/series'
import { practiceEffects, practiceWeeks } from '../features/history/practice'
import PracticeChart from '../features/history/PracticeChart.vue'
import SideBySide from '../features/history/SideBySide.vue'
import { useLesson } from '../stores/lesson'
import { useOpenStudent } from '../stores/useOpenStudent'
import KeyHint from '../ui/KeyHint.vue'
import { useShortcuts } from '../ui/useShortcuts'
import { MEASURE_WORDS, noTrendSentence, waitsSentence } from '../words/history'
import { count } from '../words/numbers'
import { shortMarkName } from '../words/trade'
import { studioDay } from '../words/shown'

const props = defineProps<{ studentId: string }>()
const router = useRouter()
const lesson = useLesson()
const student = useOpenStudent(() => props.studentId)
const history = useLoaded(
  () => props.studentId,
  (studentId) => call('checks.history', { params: { studentId } }),
)
const checks = computed(() => history.data.value?.checks ?? [])
const plans = useLoaded(
  () => props.studentId,
  (studentId) => call('plans.list', { params: { studentId } }),
)
const practice = useLoaded(
  () => props.studentId,
  (studentId) => call('practice.list', { params: { studentId } }),
)
const entries = computed(() => practice.data.value ?? [])
const effects = computed(() => practiceEffects(checks.value, plans.data.value ?? [], entries.value))
const today = studioDay()
const all = computed(() => MEASURES.map((measure) => seriesOf(measure, checks.value)))
const drawn = computed(() => all.value.filter(({ points }) => points.length > 0))
const waits = computed(() =>
  waitsSentence(
    all.value.filter(({ points }) => points.length === 0).map(({ measure }) => MEASURE_WORDS[measure]),
  ),
)
const noTrend = computed(() => {
  const weeks = drawn.value.flatMap(({ trend }) => (trend.outcome === 'too_few' ? [trend.weeks] : []))
  return weeks.length === drawn.value.length ? noTrendSentence(Math.max(0, ...weeks)) : ''
})
const none = { checks: [], loans: [], tapes: [] }
const time = computed(() => timeOf(history.data.value ?? none, today))
const spans = computed(() => spansOf(history.data.value ?? none, today, markName))
const rejudgedCount = computed(() => checks.value.filter(({ isRejudged }) => isRejudged).length)

function markName(markId: string): string {
  const [mark] = marksWithIds(familyOf(student.value?.family ?? 'violin'), [markId])
  return mark ? shortMarkName(mark) : markId
}

/** The two that are held against each other. */
const chosen = ref<{ earlier: string; later: string }>()
watch(
  checks,
  (now) => {
    const pair = usualPair(now)
    chosen.value = pair && { earlier: pair[0], later: pair[1] }
  },
  { immediate: true },
)
/** Moves the later one along the checks. */
function step(by: 1 | -1) {
  const of = chosen.value
  if (!of) return
  const at = checks.value.findIndex(({ id }) => id === of.later)
  const next = checks.value[at + by]
  if (next) of.later = next.id
}

function goToCheck() {
  lesson.begin(props.studentId)
  void router.push({ name: 'check' })
}

useShortcuts('Over time', [
  { key: 'ArrowLeft', does: 'The check before as the later one', run: () => step(-1) },
  { key: 'ArrowRight', does: 'The next check as the later one', run: () => step(1) },
  { key: 'c', does: 'Check the hand', run: goToCheck },
  {
    key: 'e',
    does: 'The student’s file',
    run: () => void router.push({ name: 'student', params: { studentId: props.studentId } }),
  },
])
</script>

<style scoped>
h1 a {
  color: inherit;
  text-decoration: none;
}

.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: var(--gap);
  align-items: start;
}

.charts {
  display: grid;
  gap: 6px;
}

@media (width <= 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
