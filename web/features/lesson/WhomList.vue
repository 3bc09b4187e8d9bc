<template>
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
    @pick="(student) => emit('pick', student)"
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
</template>

<script setup lang="ts">
import type { Student } from '#contracts'
import PickList from '../../ui/PickList.vue'
import { playedBy, useWhom } from './useWhom'

/** Whose turn it may be. For a dialog: the day's lessons are asked for when it is opened, not on every page. */
const emit = defineEmits<{ pick: [student: Student] }>()
const { text, shown, isFinding, isFound } = useWhom()
</script>

<style scoped>
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
