<template>
  <p class="export" role="group" aria-label="Take this table along">
    <button type="button" @click="saveCsv">CSV</button>
    <button type="button" @click="saveJson">JSON</button>
    <!-- The same in other forms. -->
    <slot />
  </p>
</template>

<script setup lang="ts">
import { fileName, saveFile, toCsv, toJson, type DataTable } from './tables'

const props = defineProps<{ table: DataTable | (() => DataTable | Promise<DataTable>) }>()

/** A long table is made when it is asked for. */
async function made(): Promise<DataTable> {
  return typeof props.table === 'function' ? props.table() : props.table
}
async function saveCsv() {
  const table = await made()
  saveFile(fileName(table.name, 'csv'), toCsv(table), 'text/csv;charset=utf-8')
}
async function saveJson() {
  const table = await made()
  saveFile(fileName(table.name, 'json'), toJson(table), 'application/json')
}
</script>

<style scoped>
.export {
  display: flex;
  justify-content: end;
  gap: 4px;
  margin-top: 8px;
}

button,
:slotted(button) {
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
button:focus-visible,
:slotted(button:hover),
:slotted(button:focus-visible) {
  background: var(--jade-wash);
  color: var(--jade);
}
</style>
