<template>
  <header class="page-head">
    <h1>Instruments</h1>
    <p v-if="list.total.value" class="whose">{{ count(list.total.value, 'instrument') }}</p>
    <div class="actions">
      <ElButton @click="router.push({ name: 'import' })"
        >Bring in a table<KeyHint of="i" on-button
      /></ElButton>
      <ElButton :disabled="sheets.length === 0" @click="isPrinting = true">
        Print {{ sheets.length > 0 ? count(sheets.length, 'strip') : 'strips' }}<KeyHint of="p" on-button />
      </ElButton>
      <ElButton type="primary" @click="isAdding = true">New instrument<KeyHint of="n" on-button /></ElButton>
    </div>
  </header>
  <section class="card">
    <div class="tools">
      <label class="visually-hidden" for="instrument-search">Find an instrument</label>
      <ElInput
        id="instrument-search"
        ref="search"
        v-model="text"
        placeholder="Number, family, size, holder"
        clearable
        autocomplete="off"
        @keydown.enter.prevent="onEnter"
      />
      <ElSegmented v-model="family" :options="FAMILIES" aria-label="Family" />
      <ElCheckbox v-model="isDueOnly" :disabled="isOut">Only what is due</ElCheckbox>
      <ElCheckbox v-model="isOut">Taken out</ElCheckbox>
    </div>
    <RowTable
      v-if="ids.length"
      :columns="columns"
      :ids="ids"
      :at="at"
      :sort="cupboard.sort.value"
      :around="206"
      @open="(index) => open(ids[index])"
      @need="list.need"
      @sort="cupboard.sortBy"
    >
      <template #head-tick>
        <input
          type="checkbox"
          :checked="areAllChosen"
          :indeterminate="chosen.size > 0 && !areAllChosen"
          aria-label="Choose all of these"
          @change="chooseAll"
        />
      </template>
      <template #tick="{ id }">
        <input
          type="checkbox"
          tabindex="-1"
          :checked="chosen.has(id)"
          :aria-label="`Choose ${studio.instrument(id)?.label}`"
          @click.stop
          @change="choose(id)"
        />
      </template>
      <template #label="{ id }">
        <RouterLink
          class="name"
          tabindex="-1"
          :to="{ name: 'instrument', params: { instrumentId: id } }"
          @click.stop
          >{{ studio.instrument(id)?.label }}</RouterLink
        >
      </template>
      <template #kind="{ id }">{{ kindOf(id) }}</template>
      <template #length="{ id }"><span class="length numbers">{{ lengthOf(id) }}</span></template>
      <template #tapes="{ id }"
        ><span class="numbers tapes">{{ withInstrument(id, cupboard.tapesOf) }}</span></template
      >
      <template #holder="{ id }"
        ><span dir="auto">{{ studio.instrument(id)?.holder?.name ?? '' }}</span></template
      >
      <template #due="{ id }"><span class="due">{{ withInstrument(id, cupboard.dueOf) }}</span></template>
    </RowTable>
    <div v-else-if="list.total.value === 0" class="empty">
      <h2>{{ nothing.title }}</h2>
      <p class="soft">{{ nothing.what }}</p>
    </div>
    <TableExport v-if="ids.length" :table="cupboard.table" />
  </section>
  <NewInstrument v-model="isAdding" />
  <StripDialog v-model="isPrinting" :sheets="sheets" />
</template>

<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { FAMILY_IDS } from '#core'
import type { Instrument } from '#contracts'
import NewInstrument from '../features/instruments/NewInstrument.vue'
import { useCupboard } from '../features/instruments/useCupboard'
import RowTable from '../ui/RowTable.vue'
import { useRowKeys } from '../ui/useRowKeys'
import { useShortcuts } from '../ui/useShortcuts'
import { useWaitingEnter } from '../ui/useWaitingEnter'
import TableExport from '../files/TableExport.vue'
import StripDialog from '../paper/StripDialog.vue'
import { useStudio } from '../stores/studio'
import { count, inUnit, unitName } from '../words/numbers'
import { FAMILY_NAMES, instrumentKind } from '../words/trade'
import KeyHint from '../ui/KeyHint.vue'

const FAMILIES = [
  { value: 'all', label: 'All' },
  ...FAMILY_IDS.map((value) => ({ value, label: FAMILY_NAMES[value] })),
]

const COLUMNS = [
  { key: 'tick', title: '', width: 40 },
  { key: 'label', title: 'Instrument', width: 110, grow: 1, canSort: true },
  { key: 'kind', title: 'Kind', width: 110, canSort: true },
  { key: 'length', title: 'Length', width: 110, isNumber: true, canSort: true },
  { key: 'tapes', title: 'Tapes', width: 150, grow: 2, isExtra: true },
  { key: 'holder', title: 'With', width: 140, grow: 1, canSort: true, isExtra: true },
  { key: 'due', title: 'Due', width: 150, grow: 1, isExtra: true },
] as const

/** Its unit is the studio’s. */
const columns = computed(() =>
  COLUMNS.map((one) => (one.key === 'length' ? { ...one, title: `${one.title}, ${unitName()}` } : one)),
)

const router = useRouter()
const studio = useStudio()
const cupboard = useCupboard()
const { text, family, isDueOnly, isOut, query, list, chosen, areAllChosen, sheets, choose, chooseAll } =
  cupboard
const ids = list.ids
const isSearching = computed(
  () => text.value !== '' || family.value !== 'all' || isDueOnly.value || isOut.value,
)
const nothing = computed(() => {
  if (isOut.value && text.value === '')
    return {
      title: 'Nothing was taken out',
      what: 'An instrument that is gone is taken out of the cupboard on its own page; its log is kept.',
    }
  return isSearching.value
    ? { title: 'No instrument is called that', what: 'Try part of its number, its family or who has it.' }
    : {
        title: 'The cupboard is empty',
        what: 'Write down the first instrument, or bring in a table you keep already.',
      }
})
const isPrinting = ref(false)
const isAdding = ref(false)

function open(instrumentId: string | undefined) {
  if (instrumentId !== undefined) void router.push({ name: 'instrument', params: { instrumentId } })
}
function withInstrument(id: string, words: (instrument: Instrument) => string): string {
  const instrument = studio.instrument(id)
  return instrument ? words(instrument) : ''
}
const kindOf = (id: string) => withInstrument(id, (i) => instrumentKind(i.family, i.sizeId))
const lengthOf = (id: string) =>
  withInstrument(id, (i) => (i.measurement ? inUnit(i.measurement.lengthMm) : '—'))

const search = ref<InputInstance>()
const { at, shortcuts } = useRowKeys(computed(() => ids.value.length))
watch(query, () => (at.value = 0))
const here = () => ids.value[at.value]
const onEnter = useWaitingEnter(
  text,
  computed(() => list.answered.value?.q === text.value),
  () => open(ids.value[0]),
)
useShortcuts('Instruments', [
  ...shortcuts,
  {
    key: 'Enter',
    does: 'Open the instrument',
    run: () => open(here()),
  },
  {
    key: ' ',
    does: 'Choose it, or not',
    run: () => here() !== undefined && choose(here()!),
  },
  { key: '/', does: 'Find an instrument', run: () => search.value?.focus() },
  { key: 'a', does: 'Choose all, or none', run: () => void chooseAll() },
  {
    key: 'p',
    does: 'Print strips of what is chosen',
    run: () => (isPrinting.value = sheets.value.length > 0),
  },
  { key: 'i', does: 'Bring in a table', run: () => void router.push({ name: 'import' }) },
  { key: 'n', does: 'New instrument', run: () => (isAdding.value = true) },
])
</script>

<style scoped>
.tools {
  display: grid;
  grid-template-columns: minmax(220px, 340px) auto auto auto;
  justify-content: start;
  gap: 14px;
  margin-bottom: 10px;
}

input[type='checkbox'] {
  width: 17px;
  height: 17px;
  accent-color: var(--jade);
}

.name {
  font-weight: 600;
  font-size: 16.5px;
}

.length {
  font-weight: 700;
  color: var(--jade);
  font-size: 18px;
}

.tapes {
  font-size: 14.5px;
  line-height: 1.3;
}

.due {
  color: var(--brass-ink);
  font-weight: 600;
}

@media (width <= 900px) {
  .tools {
    grid-template-columns: 1fr;
  }
}
</style>
