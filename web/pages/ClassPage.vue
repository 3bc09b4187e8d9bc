<template>
  <header class="page-head">
    <h1>Practice</h1>
    <p class="whose">{{ total ? `${count(total, 'student')} with a plan` : '' }}</p>
    <div class="actions">
      <ElButton v-if="all.progress.value" @click="all.stop">
        Stop at {{ all.progress.value.done }} of {{ all.progress.value.of }}
      </ElButton>
      <ElButton @click="isBringing = true">Bring in<KeyHint of="b" on-button /></ElButton>
      <ElButton :disabled="printed.length === 0" @click="isPrinting = true"
        >Print all<KeyHint of="p" on-button
      /></ElButton>
      <ElButton
        type="primary"
        :disabled="rows.length === 0 || all.progress.value !== undefined"
        @click="isAdding = true"
        >One exercise for all<KeyHint of="a" on-button
      /></ElButton>
    </div>
  </header>
  <section v-if="total !== 0 || family !== 'all'" class="card">
    <div class="choices">
      <ElSegmented v-if="by !== 'mends'" v-model="family" :options="families" aria-label="Instrument" />
      <ElSegmented v-model="by" :options="BY" aria-label="Told by" />
    </div>
    <Mends v-if="by === 'mends'" />
    <table v-else-if="by === 'exercise'" class="ledger numbers">
      <thead>
        <tr>
          <th scope="col">Exercise</th>
          <th scope="col">Students, and on how many of their days</th>
          <th scope="col" class="number">Did it</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in byExercise" :key="one.id">
          <th scope="row">{{ practiceName(one.id) }}</th>
          <td>
            <span v-for="who in one.who" :key="who.studentId" :class="['one', { none: who.done === 0 }]">
              {{ who.name }} <b>{{ who.done }}</b><small>/{{ who.asked }}</small>
            </span>
          </td>
          <td class="number">
            {{ one.who.filter(({ done }) => done > 0).length }}<small>/{{ one.who.length }}</small>
          </td>
        </tr>
      </tbody>
    </table>
    <table v-else class="ledger numbers">
      <thead>
        <tr>
          <th scope="col">Student</th>
          <th scope="col">Exercises, and on how many days</th>
          <th scope="col" class="number days">Days</th>
          <th scope="col" class="number">Minutes</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.student.id">
          <th scope="row">
            <RouterLink :to="{ name: 'plan', params: { studentId: row.student.id } }" dir="auto">{{
              row.student.name
            }}</RouterLink>
          </th>
          <td>
            <span v-for="one in exercisesOf(row)" :key="one.id" :class="['one', { none: one.done === 0 }]">
              {{ practiceName(one.id) }} <b>{{ one.done }}</b><small>/{{ one.asked }}</small>
            </span>
          </td>
          <td class="number days">
            {{ row.done.length === 0 ? '–' : new Set(row.done.map(({ on }) => on)).size }}
          </td>
          <td class="number">{{ row.done.length === 0 ? '–' : minutesOf(row) }}</td>
        </tr>
      </tbody>
    </table>
    <ElButton v-if="by !== 'mends' && total !== undefined && rows.length < total" text @click="all.more"
      >More students</ElButton
    >
    <p v-if="hurting.length > 0 && by !== 'mends'" class="soft">
      Not printed while a pain is marked: {{ listed(hurting) }}.
    </p>
    <TableExport v-if="by !== 'mends'" :table="logTable" />
  </section>
  <section v-else class="card empty">
    <h2>No plans in these two weeks</h2>
    <p>Open a student’s file and press <KeyHint of="w" />: the week is planned from what was found.</p>
    <RouterLink :to="{ name: 'students' }">Go to the students</RouterLink>
  </section>
  <AddExercise v-model="isAdding" :exercises="addable" :has-tapes="false" @pick="give" @write="write" />
  <BringIn v-model="isBringing" :after="all.reload" />
  <OwnExerciseForm v-model="isWriting" :exercise="begun" @kept="({ id }) => give(id)" />
  <PlanSheetDialog
    v-if="printed.length > 0"
    v-model="isPrinting"
    :plans="printed"
    title="Practice of the class"
  />
</template>

<script setup lang="ts">
import { groups, rollups, sum } from 'd3-array'
import { computed, ref } from 'vue'
import { FAMILY_IDS, isPracticedOn, type ExerciseId } from '#core'
import type { OwnExercise } from '#contracts'
import AddExercise from '../features/plan/AddExercise.vue'
import BringIn from '../features/plan/BringIn.vue'
import Mends from '../features/plan/Mends.vue'
import PlanSheetDialog from '../features/plan/PlanSheetDialog.vue'
import OwnExerciseForm from '../features/plan/OwnExerciseForm.vue'
import { useClass, type ClassRow } from '../features/plan/useClass'
import TableExport from '../files/TableExport.vue'
import KeyHint from '../ui/KeyHint.vue'
import { useShortcuts } from '../ui/useShortcuts'
import { count, listed } from '../words/numbers'
import { practiceName } from '../words/plan'
import { shown } from '../words/shown'
import { familyName } from '../words/trade'

/** Who was given what, who did what, and one exercise for all of them, each for their own instrument and hand. */
const all = useClass()
const { family, rows, total } = all
const families = [
  { value: 'all', label: 'All' },
  ...FAMILY_IDS.map((value) => ({ value, label: familyName(value) })),
]
/** No paper sends a hand that hurts to practise. */
const printed = computed(() => rows.value.filter(({ student }) => student.pains.length === 0))
const hurting = computed(() =>
  rows.value.flatMap(({ student }) => (student.pains.length > 0 ? [student.name] : [])),
)

const NEXT = { student: 'exercise', exercise: 'mends', mends: 'student' } as const

function exercisesOf({ plan, done }: ClassRow) {
  return rollups(
    plan.cards,
    (cards) => cards.length,
    ({ exerciseId }) => exerciseId,
  ).map(([id, asked]) => ({ id, asked, done: done.filter(({ exerciseId }) => exerciseId === id).length }))
}
/** The same the other way round: the exercise of most first. */
const byExercise = computed(() => {
  const who = rows.value.flatMap((row) =>
    exercisesOf(row).map((one) => ({ ...one, name: row.student.name, studentId: row.student.id })),
  )
  return groups(who, ({ id }) => id)
    .map(([id, own]) => ({ id, who: own }))
    .sort((a, b) => b.who.length - a.who.length)
})
const by = ref<'student' | 'exercise' | 'mends'>('student')
const BY = [
  { value: 'student', label: 'By student' },
  { value: 'exercise', label: 'By exercise' },
  { value: 'mends', label: 'What followed' },
]
const minutesOf = ({ done }: ClassRow) => sum(done, ({ minutes }) => minutes ?? 0)

/** What was practised, a row an exercise and a day: for a spreadsheet, or another program. */
const logTable = computed(() => ({
  name: 'practice',
  columns: ['student', 'day', 'exercise', 'minutes', 'times'],
  rows: rows.value.flatMap(({ student, done }) =>
    done.map(({ on, exerciseId, minutes, times }) => [student.name, on, exerciseId, minutes, times]),
  ),
}))

const isAdding = ref(false)
const isPrinting = ref(false)
const isWriting = ref(false)
const isBringing = ref(false)
const begun = ref<Partial<OwnExercise>>()
function write(name: string) {
  begun.value = { name, ...(family.value !== 'all' && { writtenFor: family.value }) }
  isWriting.value = true
}
const addable = computed(() =>
  shown.exercises.offered.filter((id) =>
    rows.value.some(({ student }) => isPracticedOn(shown.exercises.of(id), student.family)),
  ),
)
function give(id: ExerciseId) {
  void all.giveToAll(
    rows.value.map(({ student }) => student),
    [id],
  )
}

useShortcuts('Practice of the class', [
  {
    key: 't',
    does: 'By student, by exercise, or what followed',
    run: () => (by.value = NEXT[by.value]),
  },
  {
    key: 'a',
    does: 'One exercise for all that are shown',
    // While another instrument's students are fetched too: a key pressed a moment early is not lost.
    run: () => (isAdding.value = total.value !== 0),
  },
  { key: 'b', does: 'Bring plans or logs in', run: () => (isBringing.value = true) },
  { key: 'p', does: 'Print all weeks', run: () => (isPrinting.value = printed.value.length > 0) },
])
</script>

<style scoped>
.choices > :last-child {
  margin-left: auto;
}

.choices {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 8px;
}

.ledger {
  margin: 10px 0;
}

.ledger td,
.ledger tbody th {
  padding: 6px 8px;
}

.one {
  display: inline-block;
  margin-right: 14px;
  white-space: nowrap;
}

.none {
  color: var(--ink-soft);
}

@media (width <= 560px) {
  .ledger :is(th, td) {
    padding: 4px;
    font-size: 14px;
    white-space: normal;
  }

  .one {
    margin-right: 9px;
    white-space: normal;
  }

  .days {
    display: none;
  }
}
</style>
