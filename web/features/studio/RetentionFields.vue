<template>
  <h2>What is kept how long</h2>
  <div class="fields">
    <FieldRow v-for="field in fields" :key="field.label" :label="field.label">
      <PlainSelect
        :label="field.label"
        :options="field.options"
        :model-value="field.value"
        @update:model-value="field.set"
      />
    </FieldRow>
  </div>
  <p class="soft">
    What runs out is gone for good, and no backup that is put back brings it again. Ask your school how long
    it must be kept, and may be.
  </p>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import type { StudioSettings } from '#contracts'
import FieldRow from '../../ui/FieldRow.vue'
import PlainSelect from '../../ui/PlainSelect.vue'

type Retention = StudioSettings['retention']
const props = defineProps<{ retention: Retention; set: (retention: Retention) => Promise<void> }>()

/** For a choice among numbers. */
const FOR_EVER = 0
const TIMES = [
  { value: 90, label: 'Three months' },
  { value: 183, label: 'Half a year' },
  { value: 365, label: 'A year' },
  { value: 730, label: 'Two years' },
  { value: 1826, label: 'Five years' },
  { value: 3652, label: 'Ten years' },
]
const UNTIL_REMOVED = [{ value: FOR_EVER, label: 'Until it is removed' }, ...TIMES]

const fields = computed(() => {
  const { leftDays, soundDays, trailDays } = props.retention
  const change = (part: Partial<Retention>) => props.set({ ...props.retention, ...part })
  return [
    {
      label: 'Students off the roster',
      options: UNTIL_REMOVED,
      value: leftDays ?? FOR_EVER,
      set: (days: number) => change({ leftDays: days === FOR_EVER ? null : days }),
    },
    {
      label: 'Sound of takes',
      options: UNTIL_REMOVED,
      value: soundDays ?? FOR_EVER,
      set: (days: number) => change({ soundDays: days === FOR_EVER ? null : days }),
    },
    {
      label: 'Who saw and changed what',
      options: TIMES.filter(({ value }) => value > 90),
      value: trailDays,
      set: (days: number) => change({ trailDays: days }),
    },
  ]
})
</script>

<style scoped>
h2 {
  font-size: 21px;
}

.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
  gap: 12px 18px;
}
</style>
