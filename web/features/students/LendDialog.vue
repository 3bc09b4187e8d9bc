<template>
  <QuickDialog v-model="open" label="Lend an instrument" wide>
    <h2>An instrument for {{ student.name }}</h2>
    <input
      v-model="free.text.value"
      class="field"
      autofocus
      :placeholder="`A free ${student.family}: number or size`"
      aria-label="Find a free instrument"
      autocomplete="off"
      role="combobox"
      aria-expanded="true"
      aria-controls="lend-list"
      :aria-activedescendant="rows.length ? `lend-${at}` : undefined"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.enter.prevent="lend(rows[at])"
    />
    <ul
      v-if="rows.length"
      id="lend-list"
      ref="list"
      role="listbox"
      aria-label="Free instruments, what fits best first"
    >
      <li
        v-for="(row, index) in rows"
        :id="`lend-${index}`"
        :key="row.instrument.id"
        role="option"
        :aria-selected="index === at"
        @mousemove="at = index"
        @click="lend(row)"
      >
        <strong class="label" dir="auto">{{ row.instrument.label }}</strong>
        <span>{{ sizeName(row.instrument.sizeId) }}</span>
        <span class="numbers">{{
          row.instrument.measurement ? `${mm(row.instrument.measurement.lengthMm)} mm` : 'not measured'
        }}</span>
        <span v-if="row.fit" class="fit" :class="row.fit.fit">
          <span aria-hidden="true">{{ FIT_SIGNS[row.fit.fit] }}</span> {{ FIT_NAMES[row.fit.fit] }}
          <span class="soft numbers">{{ spareWords(row.fit) }}</span>
        </span>
      </li>
    </ul>
    <p v-else-if="free.rows.value" class="none">
      {{
        free.isSearching.value
          ? 'No free instrument is called that.'
          : `No free ${student.family} suits this hand: search among all, or write down a new one in the file.`
      }}
    </p>
    <p v-if="free.more.value > 0" class="soft">And {{ free.more.value }} more: type a number or a size.</p>
    <p v-if="!student.hand" class="soft">
      The hand is not measured: with its span from 1 to 4 this list says what fits.
    </p>
    <p class="soft foot"><kbd>↑</kbd> <kbd>↓</kbd> and <kbd>⏎</kbd> lend, <kbd>Esc</kbd> leaves it.</p>
  </QuickDialog>
</template>

<script setup lang="ts">
import { computed, ref, toRef, watch } from 'vue'
import type { SizeFit } from '#core'
import type { Student } from '#contracts'
import QuickDialog from '../../ui/QuickDialog.vue'
import { scrollSoon } from '../../ui/useNextFrame'
import { mm } from '../../words/numbers'
import { FIT_NAMES, FIT_SIGNS } from '../../words/patterns'
import { sizeName } from '../../words/trade'
import { useFreeInstruments, type FreeInstrument } from './useFreeInstruments'

const props = defineProps<{ student: Student }>()
const emit = defineEmits<{ lend: [instrumentId: string] }>()
const open = defineModel<boolean>({ required: true })
const free = useFreeInstruments(toRef(props, 'student'), open)
const rows = computed(() => free.rows.value ?? [])

const at = ref(0)
const list = ref<HTMLElement>()
watch([open, free.text], () => (at.value = 0))
watch(open, () => (free.text.value = ''))
function move(by: number) {
  at.value = Math.min(rows.value.length - 1, Math.max(0, at.value + by))
  scrollSoon(() => list.value?.querySelector('[aria-selected="true"]'))
}
function lend(row: FreeInstrument | undefined) {
  if (!row) return
  open.value = false
  emit('lend', row.instrument.id)
}

function spareWords({ frames }: SizeFit): string {
  const spare = frames[0]?.spareMm ?? 0
  return spare >= 0 ? `${mm(spare)} mm to spare` : `${mm(-spare)} mm short`
}
</script>

<style scoped>
h2 {
  margin-bottom: 10px;
  font-size: 24px;
}

.field {
  width: 100%;
  border: 0;
  border-bottom: 1px solid var(--line-strong);
  padding: 4px 2px 10px;
  background: none;
  color: var(--ink);
  font: 400 20px/1.3 var(--font-title);
}

.field:focus {
  outline: none;
  border-bottom: 2px solid var(--jade);
}

ul {
  max-height: 46vh;
  overflow-y: auto;
  list-style: none;
  margin: 10px 0;
  padding: 0;
}

li {
  display: grid;
  grid-template-columns: minmax(90px, 1fr) 56px 110px minmax(0, 2fr);
  align-items: baseline;
  gap: 6px 14px;
  min-height: 44px;
  padding: 10px 12px;
  border-radius: 6px;
  cursor: pointer;
}

li[aria-selected='true'] {
  background: var(--jade-wash);
}

.label {
  font-size: 17px;
}

.fit.comfortable {
  color: var(--jade);
  font-weight: 600;
}

.fit .soft {
  margin-left: 8px;
  font-weight: 400;
}

.none {
  padding: 14px 4px;
}

.foot {
  font-size: 14px;
}

@media (width <= 560px) {
  li {
    grid-template-columns: 1fr auto auto;
  }

  .fit {
    grid-column: 1 / -1;
  }
}
</style>
