<template>
  <table ref="table" class="hands" role="grid" :aria-label="label" :aria-rowcount="rows.length">
    <thead>
      <tr>
        <th scope="col">{{ head }}</th>
        <th v-for="name in strings" :key="name" scope="col" class="string">{{ name }}</th>
      </tr>
    </thead>
    <tbody @click="onClick" @keydown.enter.prevent="onClick">
      <tr
        v-for="row in rows"
        :key="row.id"
        v-memo="[row, row.id === currentId ? currentString : -1, row.id === currentId, signOf(row), strings]"
        :class="{ current: row.id === currentId }"
        :data-row="row.id"
      >
        <th scope="row" role="rowheader">
          {{ nameOf(row.id)
          }}<span v-if="signOf(row)" class="sign" :title="signTitle">{{ signOf(row) }}</span>
        </th>
        <td
          v-for="(cell, string) in row.cells"
          :key="string"
          role="gridcell"
          :class="{
            here: row.id === currentId && string === currentString,
            changed: row.changed[string],
            none: cell.kind === 'none',
          }"
          :data-string="string"
          :tabindex="row.id === currentId && string === currentString ? 0 : -1"
          :aria-selected="row.id === currentId && string === currentString"
          :aria-label="`${nameOf(row.id)}, ${strings[string]} string: ${wordsOf(cell)}`"
        >
          {{ glyphOf(cell) }}
        </td>
      </tr>
    </tbody>
  </table>
</template>

<script setup lang="ts">
import { ref, watch } from 'vue'
import type { AtlasCell } from '#core'
import { scrollSoon } from '../../ui/useNextFrame'
import { glyphOf } from './glyph'
import type { AtlasRow } from './useAtlas'

/** Hands by string: one row a key, or a position. */
const props = defineProps<{
  label: string
  head: string
  strings: readonly string[]
  rows: readonly AtlasRow[]
  currentId: string
  currentString: number
  nameOf: (id: string) => string
  /** What is noted beside a row's name: that nothing in it is new, how well it is known. */
  signOf: (row: AtlasRow) => string
  signTitle: string
  wordsOf: (cell: AtlasCell) => string
}>()
const emit = defineEmits<{ choose: [rowId: string, string: number | undefined] }>()

/** One listener for the whole table: a hundred of them would take longer than drawing it. */
function onClick({ target }: Event) {
  if (!(target instanceof HTMLElement)) return
  const rowId = target.closest('tr')?.dataset['row']
  const string = target.closest('td')?.dataset['string']
  if (rowId !== undefined) emit('choose', rowId, string === undefined ? undefined : Number(string))
}

const table = ref<HTMLElement>()
watch(
  () => props.currentId,
  () => scrollSoon(() => table.value?.querySelector('tr.current')),
)
/** One stop of the Tab key: the focus goes with the cell that the arrows move, as long as it is in this table. */
watch(
  () => [props.currentId, props.currentString, props.rows],
  () => {
    if (table.value?.contains(document.activeElement))
      table.value.querySelector<HTMLElement>('td.here')?.focus()
  },
  { flush: 'post' },
)
</script>

<style scoped>
.hands {
  border-collapse: collapse;
  width: 100%;
}

th {
  padding: 2px 8px 2px 4px;
  color: var(--ink-soft);
  font: 600 13.5px/1.25 var(--font-text);
  text-align: left;
  white-space: nowrap;
}

thead th {
  border-bottom: 1px solid var(--line-strong);
}

.string {
  padding-left: 12px;
}

tbody th {
  cursor: pointer;
  color: var(--ink);
}

.sign {
  margin-left: 6px;
  color: var(--jade);
}

td {
  padding: 3px 2px 3px 4px;
  border: 1.5px solid transparent;
  border-bottom-color: var(--line);
  font: 600 15px/1.2 var(--font-text);
  font-variant-numeric: tabular-nums lining-nums;
  letter-spacing: 1px;

  /* A space of this face is 0.2 em, a figure 0.497 em broad. */
  word-spacing: 0.297em;
  white-space: pre;
  cursor: pointer;
}

.none {
  padding-left: 12px;
  color: var(--ink-soft);
  font-size: 12.5px;
  font-weight: 400;
  letter-spacing: 0;
}

.changed {
  outline: 1.5px dashed var(--brass);
  outline-offset: -3px;
}

.current {
  background: var(--jade-wash);
}

.current th {
  color: var(--jade-deep);
  font-weight: 800;
}

td:hover {
  background: var(--card-sunk);
}

td.here {
  border: 1.5px solid var(--jade);
  background: var(--jade);
  color: var(--on-jade);
}

@media (width <= 560px) {
  th {
    padding-right: 2px;
  }

  td {
    padding: 5px 0 5px 1px;
    font-size: 13.5px;
    letter-spacing: 0.4px;
  }
}
</style>
