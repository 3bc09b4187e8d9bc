<template>
  <header>
    <h1>{{ isToday || !isKnown || studio.isEmpty ? 'Today' : 'Next lessons' }}</h1>
    <p class="when">{{ longDay(day) }}</p>
    <p v-if="isKnown && !isToday && !studio.isEmpty" class="soft">No lessons on {{ longDay(today) }}.</p>
    <p v-if="rows.length" class="soft tally">
      {{ count(rows.length, 'lesson') }}, {{ dueCount }} with something due
    </p>
  </header>
  <section v-if="rows.length" ref="table" class="card list" aria-label="Lessons">
    <div
      v-for="(row, index) in rows"
      :key="row.student.id"
      class="row"
      :aria-current="index === at"
      @click="at = index"
    >
      <span class="time numbers">{{ row.time }}</span>
      <div class="who">
        <RouterLink class="name" :to="{ name: 'student', params: { studentId: row.student.id } }">
          {{ row.student.name }}
        </RouterLink>
        <span class="soft">{{ kindOf(row.student) }}</span>
      </div>
      <div class="due">
        <span v-for="due in row.due" :key="due.code" :class="['tag', { pain: due.code === 'pain' }]">{{
          dueWords(due)
        }}</span>
      </div>
      <p v-if="row.student.pains.length > 0" class="last hurts">
        Pain: {{ listed(row.student.pains.map(({ place }) => place)) }}. {{ PAIN_CAUTION }}
      </p>
      <p v-else class="last">
        <span v-if="row.student.workingOn" class="work">{{ `${row.student.workingOn.workOn}. ` }}</span>
        <span :class="{ soft: row.student.workingOn }">{{
          row.student.lastCheck ? checkSentence(row.student.lastCheck) : row.student.note
        }}</span>
      </p>
      <ElButton
        :type="index === at ? 'primary' : 'default'"
        :aria-label="`${actOf(row)} ${row.student.name}`"
        @click.stop="act(row)"
      >
        {{ actOf(row) }}<KeyHint v-if="index === at" of="c" on-button />
      </ElButton>
    </div>
  </section>
  <section v-else-if="studio.isEmpty" class="card empty">
    <h2>No students yet</h2>
    <p>
      Enrol the first, with the instrument that is brought along. Who has a lesson time stands here on the
      day.
    </p>
    <ElButton type="primary" class="enrol" @click="enrol">New student<KeyHint of="n" on-button /></ElButton>
  </section>
  <section v-else-if="isKnown" class="card empty">
    <h2>No lessons in the week yet</h2>
    <p>Give a student a lesson time in the student’s file, and the day is laid out here.</p>
    <RouterLink :to="{ name: 'students' }">Go to the students</RouterLink>
  </section>
</template>

<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import type { Student } from '#contracts'
import { useRowKeys } from '../ui/useRowKeys'
import { useShortcuts } from '../ui/useShortcuts'
import { useLessonDay, type LessonRow } from '../stores/useLessonDay'
import { useToday } from '../stores/useToday'
import { useLesson } from '../stores/lesson'
import { useStudio } from '../stores/studio'
import { longDay } from '../words/dates'
import { dueWords } from '../words/due'
import { count, listed } from '../words/numbers'
import { PAIN_CAUTION } from '../words/pain'
import { instrumentKind } from '../words/trade'
import { checkSentence } from '../words/verdict'
import KeyHint from '../ui/KeyHint.vue'

const router = useRouter()
const lesson = useLesson()
const studio = useStudio()
const today = useToday()
const { day, rows, isToday, isKnown } = useLessonDay(today)
const dueCount = computed(() => rows.value.filter((row) => row.due.length > 0).length)

const table = ref<HTMLElement>()
const { at, shortcuts } = useRowKeys(
  computed(() => rows.value.length),
  table,
)
const here = () => rows.value[at.value]
useShortcuts('Today', [
  ...shortcuts,
  { key: 'c', does: 'Check this student, or do what comes before', run: () => act(here()) },
  { key: 's', does: 'The student’s setup', run: () => openRoom(here(), 'setup') },
  { key: 'w', does: 'Plan the student’s week', run: () => planOf(here()) },
  { key: 'p', does: 'The student’s finger patterns', run: () => openRoom(here(), 'patterns') },
  { key: 'Enter', does: 'Open the student’s file', run: () => openFile(here()) },
  { key: 'n', does: 'New student, while there is none', run: () => studio.isEmpty && enrol() },
])
function enrol() {
  void router.push({ name: 'students', query: { new: '1' } })
}

/** A hand can be checked once nothing hurts, and there is an instrument and its length. */
function planOf(row: LessonRow | undefined) {
  if (row) void router.push({ name: 'plan', params: { studentId: row.student.id } })
}

function actOf(row: LessonRow): 'Setup' | 'Check' | 'Measure' | 'Lend' {
  const { instrument, pains } = row.student
  if (pains.length > 0) return 'Setup'
  if (!instrument) return 'Lend'
  return instrument.measurement ? 'Check' : 'Measure'
}

function act(row: LessonRow | undefined) {
  if (!row) return
  lesson.begin(row.student.id)
  const room = { Setup: 'setup', Check: 'check', Measure: 'tapes', Lend: 'student' } as const
  void router.push({
    name: room[actOf(row)],
    ...(actOf(row) === 'Lend' ? { params: { studentId: row.student.id }, query: { lend: '1' } } : {}),
  })
}

function openRoom(row: LessonRow | undefined, name: 'patterns' | 'setup') {
  if (!row) return
  lesson.begin(row.student.id)
  void router.push({ name })
}

function openFile(row: LessonRow | undefined) {
  if (row) void router.push({ name: 'student', params: { studentId: row.student.id } })
}

function kindOf({ instrument, family }: Student): string {
  return instrument ? `${instrumentKind(instrument.family, instrument.sizeId)} · ${instrument.label}` : family
}
</script>

<style scoped>
.enrol {
  justify-self: start;
}

header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 16px;
  margin-bottom: 14px;
}

.when {
  font: 400 20px/1.2 var(--font-title);
  color: var(--ink-soft);
}

.tally {
  margin-left: auto;
}

.list {
  padding: 4px 0;
}

.row {
  display: grid;
  grid-template-columns: 64px minmax(150px, 1.1fr) minmax(0, 1fr) minmax(0, 2fr) 124px;
  align-items: center;
  gap: 14px;
  padding: 9px 16px 9px 13px;
  border-left: 3px solid transparent;
}

/* A very long day is laid out as it comes into sight. */
.row {
  content-visibility: auto;
  contain-intrinsic-size: auto 58px;
}

.row + .row {
  border-top: 1px solid var(--line);
}

.row[aria-current='true'] {
  background: var(--card-sunk);
  border-left-color: var(--brass);
}

.time {
  font: 600 19px/1 var(--font-text);
}

.who {
  display: grid;
}

.name {
  font: 600 18px/1.25 var(--font-title);
  color: var(--ink);
  text-decoration: none;
}

.name:hover {
  color: var(--jade);
  text-decoration: underline;
}

.who .soft,
.last {
  font-size: 14.5px;
}

.last {
  color: var(--ink-soft);
  line-height: 1.3;
}

.due {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}

.tag {
  padding: 2px 8px;
  border-radius: 4px;
  background: var(--brass-wash);
  color: var(--brass-ink);
  font-size: 13.5px;
  font-weight: 600;
  line-height: 1.3;
}

.tag.pain {
  background: none;
  box-shadow: inset 0 0 0 1.5px var(--danger);
  color: var(--danger);
}

@media (width <= 900px) {
  .row {
    grid-template-columns: 60px minmax(0, 1fr) minmax(0, 1fr) 112px;
  }

  .last {
    grid-area: 2 / 2 / 3 / 4;
  }
}

@media (width <= 560px) {
  .row {
    grid-template-columns: 56px minmax(0, 1fr) auto;
  }

  .due {
    grid-area: 2 / 2 / 3 / 4;
  }

  .last {
    grid-area: 3 / 2 / 4 / 4;
  }
}
.last.hurts {
  color: var(--danger);
}

.work {
  color: var(--ink);
  font-weight: 600;
}
</style>
