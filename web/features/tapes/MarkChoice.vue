<template>
  <FieldRow label="Tapes">
    <ElSegmented v-model="setup.schoolId" :options="schools" aria-label="Tapes" class="schools" />
    <div v-if="setup.schoolId === BY_HAND" class="marks" role="group" aria-label="Marks by hand">
      <button
        v-for="mark in tapes.allMarks"
        :key="mark.id"
        type="button"
        :aria-pressed="setup.markIds.includes(mark.id)"
        :title="`${intervalName(mark.interval)}, ${mark.interval.semitones} semitones`"
        @click="toggle(mark.id)"
      >
        {{ shortMarkName(mark) }}
      </button>
    </div>
  </FieldRow>
</template>

<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed } from 'vue'
import { BY_HAND, useBench } from '../../stores/bench'
import { intervalName, schoolName, shortMarkName } from '../../words/trade'
import FieldRow from '../../ui/FieldRow.vue'
import { useTapes } from './useTapes'

const bench = useBench()
const tapes = useTapes()
const { setup } = storeToRefs(bench)

const schools = computed(() =>
  [...bench.family.schools.map(({ id }) => id), BY_HAND].map((id) => ({
    value: id,
    label: schoolName(id),
  })),
)

function toggle(id: string) {
  const { markIds } = setup.value
  setup.value.markIds = markIds.includes(id) ? markIds.filter((m) => m !== id) : [...markIds, id]
}
</script>

<style scoped>
.schools {
  font-size: 14px;
  --el-segmented-padding: 2px;
}

.schools :deep(.el-segmented__item) {
  padding: 0 5px;
}

.marks {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  margin-top: 6px;
}

.marks button {
  border: 1px solid var(--line-strong);
  border-radius: 999px;
  padding: 4px 11px;
  background: var(--card);
  color: var(--ink);
  font: 500 14.5px/1.2 var(--font-text);
  cursor: pointer;
}

.marks button[aria-pressed='true'] {
  border-color: var(--jade);
  background: var(--jade);
  color: var(--on-jade);
}
</style>
