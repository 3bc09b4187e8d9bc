<template>
  <header class="page-head">
    <h1>Students</h1>
    <p v-if="list.total.value" class="soft">{{ count(list.total.value, 'student') }}</p>
    <div class="actions">
      <ElInput
        ref="search"
        v-model="text"
        placeholder="Part of a name or instrument"
        aria-label="Search students"
        clearable
        class="search"
        @keydown.down.prevent="search?.blur()"
        @keydown.enter.prevent="onEnter"
      />
      <ElButton @click="router.push({ name: 'practice' })">Practice<KeyHint of="w" on-button /></ElButton>
      <ElButton type="primary" @click="openNew">New student<KeyHint of="n" on-button /></ElButton>
    </div>
  </header>
  <section v-if="list.ids.value.length" class="card list" aria-label="Roster">
    <RowTable
      :columns="columns"
      :ids="list.ids.value"
      :at="at"
      :sort="sort"
      @open="(index) => openFile(list.ids.value[index])"
      @need="list.need"
      @sort="sortBy"
    >
      <template #name="{ id }">
        <RouterLink
          class="name"
          dir="auto"
          tabindex="-1"
          :to="{ name: 'student', params: { studentId: id } }"
          @click.stop
          >{{ studio.student(id)?.name }}</RouterLink
        >
      </template>
      <template #instrument="{ id }">
        <span>{{ instrumentOf(id) }}</span>
      </template>
      <template #length="{ id }">
        <span class="numbers">{{ lengthOf(id) }}</span>
      </template>
      <template #lesson="{ id }">{{ lessonOf(id) }}</template>
      <template #checked="{ id }">
        <span class="last">{{ verdictOf(id) }}</span>
      </template>
    </RowTable>
  </section>
  <section v-else-if="list.total.value === 0" class="card empty">
    <template v-if="text">
      <h2>Nobody is called that</h2>
      <p>Try part of a name, a family or an instrument’s number.</p>
    </template>
    <template v-else>
      <h2>No students yet</h2>
      <p>
        Press <kbd>N</kbd> to enrol the first one; a name and a family are enough, and the instrument may come
        along.
      </p>
    </template>
  </section>
  <StudentDialog v-model="isEnrolling" :student="undefined" @saved="onEnrolled" />
</template>

<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Student } from '#contracts'
import RowTable from '../ui/RowTable.vue'
import { useRowKeys, useRowSort } from '../ui/useRowKeys'
import { useSettled } from '../ui/useSettled'
import { useShortcuts } from '../ui/useShortcuts'
import { useWaitingEnter } from '../ui/useWaitingEnter'
import StudentDialog from '../features/students/StudentDialog.vue'
import { useNotices } from '../stores/notices'
import { useStudio } from '../stores/studio'
import { useList } from '../stores/useList'
import { count, inUnit, unitName } from '../words/numbers'
import { familyName, instrumentKind, WEEKDAYS } from '../words/trade'
import { checkSentence } from '../words/verdict'
import KeyHint from '../ui/KeyHint.vue'

const COLUMNS = [
  { key: 'name', title: 'Name', width: 170, grow: 1, canSort: true },
  { key: 'instrument', title: 'Instrument', width: 150, grow: 1, canSort: true },
  { key: 'length', title: 'String', width: 100, isNumber: true, canSort: true, isExtra: true },
  { key: 'lesson', title: 'Lesson', width: 100, canSort: true, isExtra: true },
  { key: 'checked', title: 'Last check', width: 220, grow: 2, canSort: true, isExtra: true },
] as const

/** Its unit is the studio’s. */
const columns = computed(() =>
  COLUMNS.map((one) => (one.key === 'length' ? { ...one, title: `${one.title}, ${unitName()}` } : one)),
)

const route = useRoute()
const router = useRouter()
const studio = useStudio()

const text = ref('')
const search = ref<InputInstance>()
const asked = useSettled(text)
const { sort, sortBy } = useRowSort<(typeof COLUMNS)[number]['key']>('name')
const list = useList(
  computed(() => ({ q: asked.value, sort: sort.value.key, direction: sort.value.direction })),
  studio.findStudents,
)
watch(() => studio.saves, list.reload)
const onEnter = useWaitingEnter(
  text,
  computed(() => list.answered.value?.q === text.value),
  () => openFile(list.ids.value[0]),
)

const { at, shortcuts } = useRowKeys(computed(() => list.ids.value.length))
watch([asked, sort], () => (at.value = 0))

function instrumentOf(id: string): string {
  const of = studio.student(id)
  if (!of) return ''
  return of.instrument
    ? `${instrumentKind(of.instrument.family, of.instrument.sizeId)} · ${of.instrument.label}`
    : `${familyName(of.family)}, none lent`
}
function lengthOf(id: string): string {
  const measurement = studio.student(id)?.instrument?.measurement
  return measurement ? inUnit(measurement.lengthMm) : ''
}
function lessonOf(id: string): string {
  const lesson = studio.student(id)?.lesson
  return lesson ? `${WEEKDAYS[lesson.weekday]?.slice(0, 3)} ${lesson.time}` : ''
}
function verdictOf(id: string): string {
  const last = studio.student(id)?.lastCheck
  return last ? checkSentence(last) : ''
}

const isEnrolling = ref(false)
watch(
  () => route.query['new'],
  (wanted) => {
    if (!wanted) return
    isEnrolling.value = true
    void router.replace({ query: {} })
  },
  { immediate: true },
)
function openNew() {
  isEnrolling.value = true
}
function onEnrolled(student: Student) {
  studio.takeStudent(student)
  useNotices().say(`${student.name} is on the roster.`)
  openFile(student.id)
}
function openFile(studentId: string | undefined) {
  if (studentId !== undefined) void router.push({ name: 'student', params: { studentId } })
}

useShortcuts('Students', [
  ...shortcuts,
  { key: 'Enter', does: 'Open the student’s file', run: () => openFile(list.ids.value[at.value]) },
  { key: 'n', does: 'New student', run: openNew },
  { key: 'w', does: 'Practice of the class', run: () => void router.push({ name: 'practice' }) },
  { key: '/', does: 'Search', run: () => search.value?.focus() },
])
</script>

<style scoped>
.search {
  width: 260px;
}

.list {
  padding: 6px 10px;
}

.name {
  font: 600 17px/1.3 var(--font-title);
  color: var(--ink);
  text-decoration: none;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.name:hover {
  color: var(--jade);
}

.last {
  display: -webkit-box;
  overflow: hidden;
  color: var(--ink-soft);
  font-size: 14.5px;
  line-height: 1.3;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
}
</style>
