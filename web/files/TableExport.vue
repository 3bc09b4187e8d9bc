<template>
  <p class="export" role="group" :aria-label="`Take this table along: ${table.name}`">
    <button
      type="button"
      @click="saveFile(fileName(table.name, 'csv'), toCsv(table), 'text/csv;charset=utf-8')"
    >
      CSV
    </button>
    <button type="button" @click="saveFile(fileName(table.name, 'json'), toJson(table), 'application/json')">
      JSON
    </button>
  </p>
</template>

<script setup lang="ts">
import { fileName, saveFile, toCsv, toJson, type DataTable } from './tables'

defineProps<{ table: DataTable }>()
</script>

<style scoped>
.export {
  display: flex;
  justify-content: end;
  gap: 4px;
  margin-top: 8px;
}

button {
  border: 0;
  border-radius: 5px;
  padding: 3px 9px;
  background: none;
  color: var(--ink-soft);
  font: 600 13.5px var(--font-text);
  letter-spacing: 0.05em;
  cursor: pointer;
}

button:hover,
button:focus-visible {
  background: var(--jade-wash);
  color: var(--jade);
}
</style>
