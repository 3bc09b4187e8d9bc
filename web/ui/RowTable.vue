<template>
  <div ref="frame" class="rows">
    <ElTableV2 v-bind="settings">
      <template #header-cell="{ column }">
        <slot :name="`head-${String(column.key)}`">
          <button v-if="sorted(column.key)" type="button" @click="emit('sort', String(column.key))">
            {{ column.title }}<span aria-hidden="true">{{ signOf(String(column.key)) }}</span>
          </button>
          <span v-else class="title">{{ column.title }}</span>
        </slot>
      </template>
      <template #cell="{ column, rowData }">
        <slot v-if="rowData.id !== undefined" :id="rowData.id" :name="String(column.key)" />
        <span v-else-if="column.key === columns[0]?.key" class="soft">…</span>
      </template>
    </ElTableV2>
  </div>
</template>

<script setup lang="ts">
import { useWindowSize } from '@vueuse/core'
import type { Column, ElTableV2, TableV2Instance } from 'element-plus'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import { useWidth } from './useWidth'

export interface RowColumn {
  readonly key: string
  readonly title: string
  /** At least so wide, px; what is left over is shared out by `grow`. */
  readonly width: number
  readonly grow?: number
  readonly isNumber?: boolean
  readonly canSort?: boolean
  /** Left out where the table is narrow. */
  readonly isExtra?: boolean
}

/** A long list of rows that are known by id and drawn only where they are in sight. */
const props = withDefaults(
  defineProps<{
    columns: readonly RowColumn[]
    ids: readonly (string | undefined)[]
    /** The row that keys are about. */
    at: number
    sort: { readonly key: string; readonly direction: 'up' | 'down' }
    rowHeight?: number
    /** What else stands on the page, px: the table takes the rest of its height. */
    around?: number
  }>(),
  { rowHeight: 50, around: 112 },
)
const emit = defineEmits<{ open: [index: number]; sort: [key: string]; need: [from: number, to: number] }>()

const HEADER = 40
const NARROW = 620
const LOWEST = 260

const frame = ref<HTMLElement>()
const table = shallowRef<TableV2Instance>()
const width = useWidth(frame, 980)
const { height: windowHeight } = useWindowSize()
const height = computed(() =>
  Math.min(
    Math.max(LOWEST, windowHeight.value - props.around),
    HEADER + props.ids.length * props.rowHeight + 2,
  ),
)

/** Its own key where the row has not come yet: two of them are two rows. */
const rows = computed(() => props.ids.map((id, index) => ({ id, key: id ?? `row ${index}`, index })))
const shown = computed(() =>
  props.columns.filter((column) => !column.isExtra || width.value === 0 || width.value > NARROW),
)
const laidOut = computed<Column[]>(() => {
  const wanted = shown.value.reduce((sum, column) => sum + column.width, 0)
  const parts = shown.value.reduce((sum, column) => sum + (column.grow ?? 0), 0)
  const spare = Math.max(0, width.value - wanted)
  // On a phone they give way together: nothing is looked for sideways.
  const narrowing = width.value > 0 ? Math.min(1, width.value / wanted) : 1
  return shown.value.map(({ key, title, width: least, grow = 0, isNumber }) => ({
    key,
    dataKey: key,
    title,
    width: least * narrowing + (parts > 0 ? (spare * grow) / parts : 0),
    align: isNumber ? ('right' as const) : ('left' as const),
  }))
})

const sorted = (key: unknown) => props.columns.find((column) => column.key === key)?.canSort === true
function signOf(key: string): string {
  if (props.sort.key !== key) return ''
  return props.sort.direction === 'up' ? ' ▲' : ' ▼'
}
const headerProps = ({ headerIndex, columns }: { headerIndex?: number; columns: Column[] }) => {
  const key = columns[headerIndex ?? 0]?.key
  return sorted(key) && props.sort.key === key
    ? { 'aria-sort': props.sort.direction === 'up' ? 'ascending' : 'descending' }
    : {}
}
/** Bound as one: Element Plus types these single props as their own descriptions. */
const settings = computed(
  () =>
    ({
      ref: (made: TableV2Instance) => (table.value = made),
      columns: laidOut.value,
      data: rows.value,
      rowKey: 'key',
      width: width.value,
      height: height.value,
      rowHeight: props.rowHeight,
      headerHeight: HEADER,
      rowProps,
      headerCellProps: headerProps,
      rowEventHandlers: { onClick: ({ rowIndex }: { rowIndex: number }) => emit('open', rowIndex) },
      fixed: true,
      onRowsRendered: onRendered,
    }) as unknown as InstanceType<typeof ElTableV2>['$props'],
)
const rowProps = ({ rowIndex }: { rowIndex: number }) => ({
  'aria-current': rowIndex === props.at ? 'true' : undefined,
  'aria-rowindex': rowIndex + 2,
  tabindex: rowIndex === props.at ? 0 : -1,
})

function onRendered({ rowVisibleStart, rowVisibleEnd }: { rowVisibleStart: number; rowVisibleEnd: number }) {
  emit('need', rowVisibleStart, rowVisibleEnd)
}
/** One stop of the Tab key: the focus goes with the row that the arrows move, as long as it is in the list. */
watch(
  () => props.at,
  async (at) => {
    const isInside = frame.value?.contains(document.activeElement)
    await nextTick()
    table.value?.scrollToRow(at, 'smart')
    await nextTick()
    if (isInside) frame.value?.querySelector<HTMLElement>('[aria-current="true"]')?.focus()
  },
)
</script>

<style scoped>
.rows {
  --el-table-header-bg-color: var(--card);
  --el-table-row-hover-bg-color: var(--card-sunk);
  --el-bg-color: var(--card);
  --el-table-border: 1px solid var(--line);
}

.rows :deep(.el-table-v2__row) {
  cursor: pointer;
}

.rows :deep(.el-table-v2__row[aria-current='true']) {
  background: var(--jade-wash);
  box-shadow: inset 3px 0 0 var(--brass);
}

.rows :deep(.el-table-v2__header-row) {
  border-bottom: 1px solid var(--line-strong);
}

.rows :deep(.el-table-v2__header-cell) {
  color: var(--ink-soft);
  font-weight: 600;
  font-size: 13.5px;
}

button {
  padding: 6px 0;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  cursor: pointer;
}

button:hover {
  color: var(--jade);
}
</style>
