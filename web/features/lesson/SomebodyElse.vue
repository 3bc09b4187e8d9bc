<template>
  <button class="else" type="button" @click="isOpen = true">
    <span>Somebody else</span><KeyHint class="key" of="0" aria-hidden="true" />
  </button>
  <QuickDialog v-model="isOpen" label="Whose turn?">
    <PickList
      id="whom"
      v-slot="{ row }"
      v-model="text"
      label="Find a student"
      list-label="Students"
      placeholder="Whose turn? Part of a name…"
      :rows="shown"
      :key-of="(student) => student.id"
      :is-found="isFound"
      @pick="choose"
    >
      <span class="row">
        <span class="time numbers">{{ isFinding ? '' : row.lesson?.time }}</span>
        <span class="name" dir="auto">{{ row.name }}</span>
        <span class="soft">{{ playedBy(row) }}</span>
      </span>
    </PickList>
    <p v-if="shown.length === 0 && isFinding && isFound" class="soft none">
      Nobody is called that: try part of a name.
    </p>
  </QuickDialog>
</template>

<script setup lang="ts">
import { ref, watch } from 'vue'
import type { Student } from '#contracts'
import { useLesson } from '../../stores/lesson'
import KeyHint from '../../ui/KeyHint.vue'
import PickList from '../../ui/PickList.vue'
import QuickDialog from '../../ui/QuickDialog.vue'
import { useShortcuts } from '../../ui/useShortcuts'
import { playedBy, useWhom } from './useWhom'

/** The way from one student to the next without leaving the room: what is typed there is a name and no answer. */
const lesson = useLesson()
const isOpen = ref(false)
const { text, shown, isFinding, isFound } = useWhom()
watch(isOpen, () => (text.value = ''))

function choose(student: Student) {
  isOpen.value = false
  lesson.begin(student.id)
}
useShortcuts('In the lesson', [{ key: '0', does: 'Somebody else', run: () => (isOpen.value = true) }])
</script>

<style scoped>
.else {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  width: 100%;
  min-height: 32px;
  margin-top: 6px;
  padding: 4px 10px;
  border: 1px solid var(--rail-lit);
  border-radius: 6px;
  background: none;
  color: inherit;
  font: inherit;
  font-size: 14.5px;
  cursor: pointer;
}

.else > span {
  white-space: nowrap;
}

.key {
  border: 0;
  padding: 0;
  background: none;
  color: var(--rail-soft, inherit);
  font-weight: 400;
  white-space: nowrap;
}

.else:hover {
  background: var(--rail-lit);
}

@media (width <= 900px) {
  .else {
    width: auto;
    margin: 0;
  }
}

.row {
  display: grid;
  grid-template-columns: 54px minmax(0, 1fr) auto;
  align-items: baseline;
  gap: 10px;
  padding: 8px 12px;
  font-size: 16px;
}

.time {
  color: var(--ink-soft);
}

.name {
  font-weight: 600;
}

.none {
  padding: 12px;
}
</style>
