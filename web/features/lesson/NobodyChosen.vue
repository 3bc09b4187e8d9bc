<template>
  <header class="page-head">
    <h1>{{ room }}</h1>
    <p class="whose">Whose hand?</p>
  </header>
  <div class="whom">
    <section class="card" aria-label="Students">
      <ElInput
        ref="search"
        v-model="text"
        :placeholder="hasLessons ? 'Or part of a name' : 'Part of a name'"
        aria-label="Find a student"
        clearable
        @keydown.down.prevent="search?.blur()"
        @keydown.enter.prevent="onEnter"
      >
        <template #suffix><KeyHint of="/" /></template>
      </ElInput>
      <p class="eyebrow">{{ isFinding ? 'Found' : isToday ? 'Today' : longDay(day) }}</p>
      <ul v-if="shown.length" ref="list">
        <li v-for="(student, index) in shown" :key="student.id">
          <button type="button" :aria-current="index === at" @click="choose(student)" @mousemove="at = index">
            <span class="time numbers">{{ isFinding ? '' : student.lesson?.time }}</span>
            <span class="name" dir="auto">{{ student.name }}</span>
            <span class="soft">{{ playedBy(student) }}</span>
          </button>
        </li>
      </ul>
      <p v-else-if="studio.isEmpty" class="soft">
        No students yet:
        <RouterLink :to="{ name: 'students', query: { new: '1' } }">enrol the first</RouterLink>.
      </p>
      <p v-else-if="isFinding" class="soft">Nobody is called that: try part of a name.</p>
      <p v-else-if="isKnown" class="soft">Nobody has a lesson time yet: find a student by name.</p>
    </section>
    <slot />
  </div>
</template>

<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { computed, ref, watch } from 'vue'
import type { Student } from '#contracts'
import { useLesson } from '../../stores/lesson'
import { useStudio } from '../../stores/studio'
import KeyHint from '../../ui/KeyHint.vue'
import { useRowKeys } from '../../ui/useRowKeys'
import { useShortcuts } from '../../ui/useShortcuts'
import { useWaitingEnter } from '../../ui/useWaitingEnter'
import { longDay } from '../../words/dates'
import { playedBy, useWhom } from './useWhom'

/** Whose hand it is: of today’s lessons, or anybody of the studio; beside them what else the room offers. */
defineProps<{ room: string }>()
const lesson = useLesson()
const studio = useStudio()
const { text, isFinding, isFound, shown, day, isToday, isKnown, hasLessons } = useWhom()
const onEnter = useWaitingEnter(text, isFound, () => choose(shown.value[0]))

const search = ref<InputInstance>()
const list = ref<HTMLElement>()
const { at, shortcuts } = useRowKeys(
  computed(() => shown.value.length),
  list,
)
watch(shown, () => (at.value = 0))
useShortcuts('Whose hand', [
  ...shortcuts,
  { key: 'Enter', does: 'This student’s hand', run: () => choose(shown.value[at.value]) },
  { key: '/', does: 'Find a student', run: () => search.value?.focus() },
])

function choose(student: Student | undefined) {
  if (student) lesson.begin(student.id)
}
</script>

<style scoped>
.whom {
  display: grid;
  grid-template-columns: minmax(0, 1.3fr) minmax(300px, 1fr);
  align-items: start;
  gap: var(--gap);
}

.eyebrow {
  margin: 14px 0 4px;
}

ul {
  list-style: none;
  margin: 0 -16px;
  padding: 0;
}

li + li {
  border-top: 1px solid var(--line);
}

li button {
  display: grid;
  grid-template-columns: 58px minmax(0, 1fr) auto;
  align-items: baseline;
  gap: 10px;
  width: 100%;
  min-height: 44px;
  border: 0;
  border-left: 3px solid transparent;
  padding: 8px 16px 8px 13px;
  background: none;
  color: var(--ink);
  font: inherit;
  text-align: left;
  cursor: pointer;
}

li button[aria-current='true'] {
  border-left-color: var(--brass);
  background: var(--card-sunk);
}

.time {
  font-weight: 600;
}

.name {
  font: 600 18px/1.25 var(--font-title);
}

@media (width <= 900px) {
  .whom {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
