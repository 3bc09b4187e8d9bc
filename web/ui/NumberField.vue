<template>
  <FieldRow v-slot="{ id }" :label="label">
    <ElInputNumber :id="id" :model-value="value" :min="min" :max="max" @change="take" />
  </FieldRow>
</template>

<script setup lang="ts">
import FieldRow from './FieldRow.vue'

/** A labelled number between two bounds; an emptied field changes nothing. */
defineProps<{ label: string; value: number; min: number; max: number }>()
const emit = defineEmits<{ change: [value: number] }>()
function take(value: number | null | undefined) {
  if (typeof value === 'number') emit('change', Math.round(value))
}
</script>

<style scoped>
.el-input-number {
  width: 100%;
}
</style>
