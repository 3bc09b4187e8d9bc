<template>
  <input
    :id="`${id}-field`"
    v-model="text"
    class="field"
    autofocus
    :placeholder="placeholder"
    :aria-label="label"
    autocomplete="off"
    role="combobox"
    aria-expanded="true"
    :aria-controls="`${id}-list`"
    :aria-activedescendant="rows.length ? `${id}-${at}` : undefined"
    @keydown.down.prevent="move(1)"
    @keydown.up.prevent="move(-1)"
    @keydown.enter.prevent="onEnter"
  />
  <ul v-if="rows.length" :id="`${id}-list`" ref="list" role="listbox" :aria-label="listLabel">
    <li
      v-for="(row, index) in rows"
      :id="`${id}-${index}`"
      :key="keyOf(row)"
      role="option"
      :aria-selected="index === at"
      @mousemove="at = index"
      @click="emit('pick', row)"
    >
      <slot :row="row" />
    </li>
  </ul>
</template>

<script setup lang="ts" generic="Row">
import { computed, ref, watch } from 'vue'
import { scrollSoon } from './useNextFrame'
import { useWaitingEnter } from './useWaitingEnter'

/** A field and what is found for it: typed, walked with the arrows, picked with Enter. For a dialog of its own. */
const props = withDefaults(
  defineProps<{
    /** Begins the ids of its parts. */
    id: string
    label: string
    listLabel: string
    placeholder: string
    rows: readonly Row[]
    keyOf: (row: Row) => string
    /** Whether the rows are those of what is typed, and not of what was typed before. */
    isFound?: boolean
  }>(),
  { isFound: true },
)
const emit = defineEmits<{ pick: [row: Row] }>()
const text = defineModel<string>({ required: true })

const at = ref(0)
const list = ref<HTMLElement>()
watch(text, () => (at.value = 0))
function move(by: number) {
  const n = props.rows.length
  if (n > 0) at.value = (at.value + by + n) % n
  scrollSoon(() => list.value?.querySelector('[aria-selected="true"]'))
}
const onEnter = useWaitingEnter(
  text,
  computed(() => props.isFound),
  () => {
    const row = props.rows[at.value]
    if (row !== undefined) emit('pick', row)
  },
)
</script>

<style scoped>
.field {
  width: 100%;
  border: 0;
  border-bottom: 1px solid var(--line-strong);
  padding: 4px 2px 10px;
  background: none;
  color: var(--ink);
  font: 400 22px/1.3 var(--font-title);
}

.field:focus {
  outline: none;
  border-bottom: 2px solid var(--jade);
}

ul {
  max-height: 52vh;
  overflow-y: auto;
  list-style: none;
  margin: 12px 0 0;
  padding: 0;
}

li {
  border-radius: 6px;
  color: var(--ink);
  cursor: pointer;
}

li[aria-selected='true'] {
  background: var(--jade-wash);
}
</style>
