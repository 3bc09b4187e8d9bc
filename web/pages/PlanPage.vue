<template>
  <template v-if="student">
    <header class="page-head">
      <h1 dir="auto">
        <RouterLink :to="{ name: 'student', params: { studentId } }">{{ student.name }}</RouterLink>
      </h1>
      <p class="whose">the week from {{ shortDay(plan.startsOn.value) }}</p>
      <div class="actions">
        <ElButton :disabled="!plan.canUndo.value" @click="plan.undo"
          >Undo<KeyHint of="u" on-button
        /></ElButton>
        <ElButton v-if="plan.given.value" @click="plan.anew">Plan anew<KeyHint of="r" on-button /></ElButton>
        <ElButton @click="isAdding = true">Add<KeyHint of="a" on-button /></ElButton>
        <ElButton :disabled="!canPrint" @click="isPrinting = true"
          >Print<KeyHint of="p" on-button
        /></ElButton>
        <ElButton
          type="primary"
          :disabled="
            !plan.made.value || plan.made.value.cards.length === 0 || !plan.isChanged.value || isGiving
          "
          @click="give"
        >
          {{ plan.isChanged.value ? 'Give the plan' : 'Given' }}<KeyHint of="g" on-button />
        </ElButton>
      </div>
    </header>
    <PlanLog
      v-if="log.days.value.length > 0"
      :log="log"
      :title="
        running?.startsOn === plan.startsOn.value
          ? 'This week so far'
          : `The last plan, from ${shortDay(running!.startsOn)}`
      "
      @say="log.sayDay"
      @toggle="log.toggle"
      @exactly="isExact = true"
    />
    <ExactLog v-model="isExact" :log="log" />
    <section v-if="plan.made.value" class="card" aria-label="The week">
      <div class="terms">
        <span class="minutes">
          <ElInputNumber
            :model-value="plan.edit.value.minutesADay"
            :min="5"
            :max="120"
            :step="5"
            aria-label="Minutes a day"
            @change="(minutes) => minutes && plan.setMinutes(minutes)"
          />
          minutes a day <KeyHint of="[" /><KeyHint of="]" />
        </span>
        <label class="pieces">
          <span class="soft">Old pieces</span>
          <ElInput
            v-model="pieceText"
            placeholder="titles, by commas"
            aria-label="Old pieces, by commas"
            @change="plan.setPieces(pieceText.split(','))"
          />
        </label>
      </div>
      <p v-if="student.pains.length > 0" class="fault">
        A pain is marked: nothing is planned before it is cleared. {{ STOP_AT_PAIN }}
      </p>
      <div v-else-if="plan.made.value.cards.length === 0" class="none">
        <h2>Nothing asks for practice yet</h2>
        <p>
          Check the hand by <KeyHint of="c" /> or go through the setup by <KeyHint of="s" />; or add an
          exercise by <KeyHint of="a" />, or an old piece above.
        </p>
      </div>
      <PlanWeek
        v-else
        label="The week’s exercises"
        :days="plan.days.value"
        :cards="plan.made.value.cards"
        :chosen="at"
        @choose="(column, row) => (at = { column, row })"
        @move="move"
        @toggle-day="(day) => plan.toggleDay(weekdayOf(day))"
      />
      <div v-if="chosen && student.pains.length === 0" class="detail" aria-live="polite">
        <h2>{{ practiceName(chosen.exerciseId) }}</h2>
        <p>{{ practiceHow(chosen.exerciseId, about) }} {{ doseSentence(chosen.exerciseId) }}</p>
        <p class="why">
          {{ reasonSentence(chosen.reason, student.family) }} {{ weeksSentence(chosen.exerciseId) }}
        </p>
        <p class="soft">{{ stopSentence(chosen.exerciseId) }} {{ STOP_AT_PAIN }}</p>
        <p class="keys soft">
          <KeyHint of="," /><KeyHint of="." /> another day · <KeyHint of="k" />
          {{ chosen.isFixed ? 'loose' : 'set it here' }} · <KeyHint of="-" /><KeyHint of="+" /> minutes ·
          <KeyHint of="x" /> not this day · <KeyHint of="X" /> not this week
        </p>
      </div>
      <ul v-if="plan.made.value.leftOut.length > 0 && student.pains.length === 0" class="left soft">
        <li v-for="{ names, why } in leftOutSentences(plan.made.value.leftOut)" :key="why">
          <b>{{ names }}:</b> {{ why }}
        </li>
      </ul>
    </section>
    <AddExercise
      v-model="isAdding"
      :exercises="plan.addable.value"
      :has-tapes="hasTapes"
      @pick="plan.add"
      @write="write"
    />
    <OwnExerciseForm v-model="isWriting" :exercise="begun" @kept="({ id }) => plan.add(id)" />
    <PlanSheetDialog
      v-if="plan.given.value"
      v-model="isPrinting"
      :plans="[{ plan: plan.given.value, student }]"
      :title="`Practice of ${student.name}`"
    />
  </template>
</template>

<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { PlannedCard } from '#core'
import type { OwnExercise } from '#contracts'
import AddExercise from '../features/plan/AddExercise.vue'
import ExactLog from '../features/plan/ExactLog.vue'
import OwnExerciseForm from '../features/plan/OwnExerciseForm.vue'
import PlanLog from '../features/plan/PlanLog.vue'
import PlanSheetDialog from '../features/plan/PlanSheetDialog.vue'
import PlanWeek from '../features/plan/PlanWeek.vue'
import { useLog } from '../features/plan/useLog'
import { usePlan } from '../features/plan/usePlan'
import { usePlanFacts } from '../features/plan/usePlanFacts'
import { weekdayOf } from '../features/plan/week'
import { useLesson } from '../stores/lesson'
import { useOpenStudent } from '../stores/useOpenStudent'
import KeyHint from '../ui/KeyHint.vue'
import { useShortcuts } from '../ui/useShortcuts'
import { STOP_AT_PAIN } from '../words/advice'
import { shortDay } from '../words/dates'
import { leftOutSentences, practiceName, reasonSentence, stopSentence, weeksSentence } from '../words/plan'
import { doseSentence, practiceHow } from '../words/practice'

const props = defineProps<{ studentId: string }>()
const router = useRouter()
const lesson = useLesson()
const student = useOpenStudent(() => props.studentId)
const file = usePlanFacts(student)
const plan = usePlan(student, file.facts, file.plans)
const { running } = plan
const log = useLog(student, running, file.practice)

const isAdding = ref(false)
const isPrinting = ref(false)
const isExact = ref(false)
const isWriting = ref(false)
const begun = ref<Partial<OwnExercise>>()
/** An exercise of the studio’s own, for this instrument to begin with. */
function write(name: string) {
  begun.value = { name, writtenFor: student.value?.family ?? 'violin' }
  isWriting.value = true
}
/** No paper sends a hand that hurts to practise. */
const canPrint = computed(() => plan.given.value !== undefined && student.value?.pains.length === 0)
const pieceText = ref('')
watch(
  () => plan.edit.value.pieces.join(', '),
  (titles) => (pieceText.value = titles),
  { immediate: true },
)

const at = ref({ column: 0, row: 0 })
const columns = computed(() =>
  plan.days.value.map(({ day }) => plan.made.value?.cards.filter(({ on }) => on === day) ?? []),
)
const chosen = computed(() => columns.value[at.value.column]?.[at.value.row])
// What was chosen was dropped, or the first day is one of rest: the nearest card is.
watch(columns, (now) => {
  const { column, row } = at.value
  if (now[column]?.[row]) return
  const nearest = now[column]?.length ? column : now.findIndex((cards) => cards.length > 0)
  if (nearest >= 0) at.value = { column: nearest, row: Math.min(row, now[nearest]!.length - 1) }
})
const hasTapes = computed(() => (student.value?.instrument?.tapes.length ?? 0) > 0)
const about = computed(() => {
  const reason = chosen.value?.reason
  const finding = reason?.code === 'finding' || reason?.code === 'review' ? reason.finding : undefined
  return { hasTapes: hasTapes.value, finding }
})

function stepDay(by: 1 | -1) {
  for (let column = at.value.column + by; column >= 0 && column < columns.value.length; column += by) {
    const cards = columns.value[column]!
    if (cards.length === 0) continue
    at.value = { column, row: Math.min(at.value.row, cards.length - 1) }
    return
  }
}
function stepCard(by: 1 | -1) {
  const row = at.value.row + by
  if (columns.value[at.value.column]?.[row]) at.value = { ...at.value, row }
}
function move(card: PlannedCard, day: string) {
  if (plan.move(card, day)) follow(card, day)
}
/** The chosen card stays chosen where it went. */
function follow({ exerciseId }: PlannedCard, day: string) {
  const column = plan.days.value.findIndex((one) => one.day === day)
  const row = columns.value[column]?.findIndex((one) => one.exerciseId === exerciseId) ?? -1
  if (row >= 0) at.value = { column, row }
}
/** To the next day that does not have it. */
function moveBy(by: 1 | -1) {
  const card = chosen.value
  if (!card) return
  for (let to = at.value.column + by; to >= 0 && to < columns.value.length; to += by)
    if (!columns.value[to]!.some((one) => one.exerciseId === card.exerciseId))
      return move(card, plan.days.value[to]!.day)
}

const isGiving = ref(false)
async function give() {
  if (isGiving.value || !plan.isChanged.value || !plan.made.value?.cards.length) return
  isGiving.value = true
  try {
    await plan.give()
  } finally {
    isGiving.value = false
  }
}

function goTo(room: 'check' | 'setup') {
  lesson.begin(props.studentId)
  void router.push({ name: room })
}
const withChosen = (act: (card: PlannedCard) => void) => () => chosen.value && act(chosen.value)

useShortcuts('The week’s plan', [
  { key: 'g', does: 'Give the plan', run: () => void give() },
  { key: 'y', does: 'That day was practised', run: () => void log.sayDay(true) },
  { key: 'n', does: 'Not that day', run: () => void log.sayDay(false) },
  { key: 'b', does: 'Back to the day before', run: log.back },
  {
    key: 'm',
    does: 'Minutes and repetitions exactly',
    run: () => (isExact.value = log.days.value.length > 0),
  },
  { key: 'ArrowLeft', does: 'Day before', run: () => stepDay(-1) },
  { key: 'ArrowRight', does: 'Next day', run: () => stepDay(1) },
  { key: 'ArrowUp', does: 'Exercise above', run: () => stepCard(-1) },
  { key: 'ArrowDown', does: 'Exercise below', run: () => stepCard(1) },
  { key: ',', does: 'Move it to an earlier day', run: () => moveBy(-1) },
  { key: '.', does: 'Move it to a later day', run: () => moveBy(1) },
  { key: 'k', does: 'Set it here, or loose again', run: withChosen((card) => plan.lock(card)) },
  { key: 'x', does: 'Not this day', run: withChosen((card) => plan.drop(card, false)) },
  { key: 'X', does: 'Not this week', run: withChosen((card) => plan.drop(card, true)) },
  { key: '+', does: 'A minute more of it', run: withChosen((card) => plan.dose(card, 1)) },
  { key: '-', does: 'A minute less of it', run: withChosen((card) => plan.dose(card, -1)) },
  { key: ']', does: 'More minutes a day', run: () => plan.setMinutes(plan.edit.value.minutesADay + 5) },
  { key: '[', does: 'Fewer minutes a day', run: () => plan.setMinutes(plan.edit.value.minutesADay - 5) },
  { key: 'a', does: 'Add an exercise', run: () => (isAdding.value = true) },
  { key: 'r', does: 'Plan anew, from today', run: plan.anew },
  { key: 'u', does: 'Undo the last change', run: plan.undo },
  { key: 'p', does: 'Print the week', run: () => (isPrinting.value = canPrint.value) },
  { key: 'c', does: 'Check the hand', run: () => goTo('check') },
  { key: 's', does: 'Go through the setup', run: () => goTo('setup') },
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

.terms {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 6px 24px;
  margin-bottom: 10px;
}

.minutes {
  display: inline-flex;
  align-items: center;
  gap: 6px;
}

.minutes .el-input-number {
  width: 116px;
}

.pieces {
  display: inline-flex;
  align-items: center;
  gap: 8px;
}

.pieces .el-input {
  width: 260px;
}

.detail {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 2px;
  margin-top: 12px;
}

.detail h2 {
  font-size: 21px;
}

.why {
  font-weight: 600;
}

.keys {
  margin-top: 5px;
  font-size: 14px;
}

.left {
  margin: 10px 0 0;
  padding: 8px 0 0;
  border-top: 1px solid var(--line);
  list-style: none;
  font-size: 14.5px;
}

.none {
  display: grid;
  gap: 8px;
  padding: 20px 4px;
}
</style>
