<template>
  <button class="else" type="button" @click="isOpen = true">
    <span>Somebody else</span><KeyHint class="key" of="0" aria-hidden="true" />
  </button>
  <QuickDialog v-model="isOpen" label="Whose turn?">
    <WhomList @pick="choose" />
  </QuickDialog>
</template>

<script setup lang="ts">
import { ref } from 'vue'
import type { Student } from '#contracts'
import { useLesson } from '../../stores/lesson'
import KeyHint from '../../ui/KeyHint.vue'
import QuickDialog from '../../ui/QuickDialog.vue'
import { useShortcuts } from '../../ui/useShortcuts'
import WhomList from './WhomList.vue'

/** The way from one student to the next without leaving the room: what is typed there is a name and no answer. */
const lesson = useLesson()
const isOpen = ref(false)

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
</style>
