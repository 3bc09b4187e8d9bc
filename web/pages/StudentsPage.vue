<template>
  <header class="page-head">
    <h1>Students</h1>
    <p v-if="studio.students" class="soft">{{ count(roster.length, 'student') }}</p>
    <div class="actions">
      <ElInput
        ref="search"
        v-model="text"
        placeholder="Part of a name or instrument"
        aria-label="Search students"
        clearable
        class="search"
        @keydown.down.prevent="table?.focus()"
      />
      <ElButton type="primary" @click="openNew">New student<kbd class="on-button">N</kbd></ElButton>
    </div>
  </header>
  <section v-if="found.length" ref="table" class="card list" tabindex="-1">
    <table class="ledger">
      <thead>
        <tr>
          <th scope="col">Name</th>
          <th scope="col">Instrument</th>
          <th scope="col" class="number">String, mm</th>
          <th scope="col">Lesson</th>
          <th scope="col">Last check</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="(student, index) in found"
          :key="student.id"
          :aria-current="index === at"
          @click="openFile(student)"
        >
          <td>
            <RouterLink dir="auto" :to="{ name: 'student', params: { studentId: student.id } }">{{
              student.name
            }}</RouterLink>
          </td>
          <td>
            <template v-if="student.instrument">
              {{ instrumentKind(student.instrument.family, student.instrument.sizeId) }}
              <span class="soft">· {{ student.instrument.label }}</span>
            </template>
            <span v-else class="soft">{{ student.family }}, none lent</span>
          </td>
          <td class="number">
            {{ student.instrument?.measurement ? mm(student.instrument.measurement.lengthMm) : '' }}
          </td>
          <td class="when">
            {{
              student.lesson ? `${WEEKDAYS[student.lesson.weekday]?.slice(0, 3)} ${student.lesson.time}` : ''
            }}
          </td>
          <td class="last">
            <template v-if="student.lastCheck">{{ verdictSentence(student.lastCheck.verdict) }}</template>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
  <section v-else-if="studio.students" class="card empty">
    <template v-if="text">
      <h2>Nobody is called that</h2>
      <p>Try part of a name, a family or an instrument’s number.</p>
    </template>
    <template v-else>
      <h2>No students yet</h2>
      <p>Press <kbd>N</kbd> to enrol the first one; a name and a family are enough.</p>
    </template>
  </section>
  <StudentDialog v-model="isEnrolling" :student="undefined" @saved="onEnrolled" />
</template>

<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { storeToRefs } from 'pinia'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Student } from '#contracts'
import { useRowKeys } from '../ui/useRowKeys'
import { useShortcuts } from '../ui/useShortcuts'
import StudentDialog from '../features/students/StudentDialog.vue'
import { useNotices } from '../stores/notices'
import { useStudio } from '../stores/studio'
import { count, mm } from '../words/numbers'
import { instrumentKind, WEEKDAYS } from '../words/trade'
import { verdictSentence } from '../words/verdict'

const route = useRoute()
const router = useRouter()
const studio = useStudio()
const { roster } = storeToRefs(studio)

const text = ref('')
const search = ref<InputInstance>()
const found = computed(() => {
  const words = text.value.toLowerCase().split(/\s+/).filter(Boolean)
  return roster.value.filter((student) => {
    const about = [student.name, student.family, student.instrument?.label, student.instrument?.sizeId]
      .join(' ')
      .toLowerCase()
    return words.every((word) => about.includes(word))
  })
})

const table = ref<HTMLElement>()
const { at, shortcuts } = useRowKeys(
  computed(() => found.value.length),
  table,
)
watch(text, () => (at.value = 0))

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
  openFile(student)
}
function openFile(student: Student | undefined) {
  if (student) void router.push({ name: 'student', params: { studentId: student.id } })
}

useShortcuts('Students', [
  ...shortcuts,
  { key: 'Enter', does: 'Open the student’s file', run: () => openFile(found.value[at.value]) },
  { key: 'n', does: 'New student', run: openNew },
  { key: '/', does: 'Search', run: () => search.value?.focus() },
])
</script>

<style scoped>
.search {
  width: 260px;
}

.list {
  padding: 6px 10px;
  overflow-x: auto;
}

.list:focus {
  outline: none;
}

tbody tr {
  cursor: pointer;
}

tbody tr:hover {
  background: var(--card-sunk);
}

tr[aria-current='true'] td {
  background: var(--card-sunk);
}

tr[aria-current='true'] td:first-child {
  box-shadow: inset 3px 0 0 var(--brass);
}

td a {
  font: 600 17px/1.3 var(--font-title);
  color: var(--ink);
  text-decoration: none;
  white-space: nowrap;
  display: inline-block;
  vertical-align: middle;
  max-width: 260px;
  overflow: hidden;
  text-overflow: ellipsis;
}

.when {
  white-space: nowrap;
}

.last {
  color: var(--ink-soft);
  font-size: 14.5px;
  line-height: 1.3;
}
</style>
