<template>
  <QuickDialog v-model="open" label="Lend an instrument" wide>
    <h2>An instrument for {{ student.name }}</h2>
    <PickList
      id="lend"
      v-slot="{ row }"
      v-model="free.text.value"
      label="Find a free instrument"
      list-label="Free instruments, what fits best first"
      :placeholder="`A free ${familyName(student.family)}: number or size`"
      :rows="rows"
      :key-of="(free) => free.instrument.id"
      :is-found="free.isFound.value"
      @pick="lend"
    >
      <span class="row">
        <strong class="label" dir="auto">{{ row.instrument.label }}</strong>
        <span>{{ sizeName(row.instrument.sizeId) }}</span>
        <span class="numbers">{{
          row.instrument.measurement ? `${length(row.instrument.measurement.lengthMm)}` : 'not measured'
        }}</span>
        <span v-if="row.fit" class="fit" :class="row.fit.fit">
          <span aria-hidden="true">{{ FIT_SIGNS[row.fit.fit] }}</span> {{ FIT_NAMES[row.fit.fit] }}
          <span class="soft numbers">{{ spareWords(row.fit) }}</span>
        </span>
      </span>
    </PickList>
    <p v-if="free.lent.value?.holder" class="none" role="status">
      {{ free.lent.value.label }} is with {{ free.lent.value.holder.name }}.
    </p>
    <p v-else-if="free.rows.value?.length === 0" class="none">
      {{
        free.isSearching.value
          ? 'No free instrument is called that.'
          : `No free ${familyName(student.family)} suits this hand: search among all, or write down a new one in the file.`
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
import { computed, toRef, watch } from 'vue'
import type { SizeFit } from '#core'
import type { Student } from '#contracts'
import PickList from '../../ui/PickList.vue'
import QuickDialog from '../../ui/QuickDialog.vue'
import { length } from '../../words/numbers'
import { FIT_NAMES, FIT_SIGNS } from '../../words/hand-fit'
import { familyName, sizeName } from '../../words/trade'
import { useFreeInstruments, type FreeInstrument } from './useFreeInstruments'

const props = defineProps<{ student: Student }>()
const emit = defineEmits<{ lend: [instrumentId: string] }>()
const open = defineModel<boolean>({ required: true })
const free = useFreeInstruments(toRef(props, 'student'), open)
const rows = computed(() => free.rows.value ?? [])

watch(open, () => (free.text.value = ''))
function lend(row: FreeInstrument) {
  open.value = false
  emit('lend', row.instrument.id)
}

function spareWords({ frames }: SizeFit): string {
  const spare = frames[0]?.spareMm ?? 0
  return spare >= 0 ? `${length(spare)} to spare` : `${length(-spare)} short`
}
</script>

<style scoped>
h2 {
  margin-bottom: 10px;
  font-size: 24px;
}

.row {
  display: grid;
  grid-template-columns: minmax(90px, 1fr) 56px 110px minmax(0, 2fr);
  align-items: baseline;
  gap: 6px 14px;
  min-height: 44px;
  padding: 10px 12px;
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
  margin-top: 10px;
  font-size: 14px;
}

@media (width <= 560px) {
  .row {
    grid-template-columns: 1fr auto auto;
  }

  .fit {
    grid-column: 1 / -1;
  }
}
</style>
