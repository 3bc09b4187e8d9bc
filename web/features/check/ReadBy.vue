<template>
  <span class="by"
    ><ElSegmented v-model="by" :options="WAYS" aria-label="Readings are taken" /><KeyHint of="b"
  /></span>
</template>

<script setup lang="ts">
import KeyHint from '../../ui/KeyHint.vue'
import type { ReadBy } from './readings-text'

/** Off a meter, by a ruler, or by eye. */
const by = defineModel<ReadBy>({ required: true })
const WAYS = [
  { value: 'meter', label: 'Meter' },
  { value: 'ruler', label: 'Ruler' },
  { value: 'eye', label: 'Eye' },
]
</script>

<style scoped>
.by {
  display: inline-flex;
  gap: 8px;
  align-items: center;
}
</style>
