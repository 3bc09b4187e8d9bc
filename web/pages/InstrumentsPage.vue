<template>
  <header class="page-head">
    <h1>Instruments</h1>
    <p v-if="studio.instruments" class="whose">{{ count(found.length, 'instrument') }}</p>
    <div class="actions">
      <ElButton @click="router.push({ name: 'import' })"
        >Bring in a table<kbd class="on-button">I</kbd></ElButton
      >
      <ElButton :disabled="sheets.length === 0" @click="isPrinting = true">
        Print {{ sheets.length > 0 ? count(sheets.length, 'strip') : 'strips' }}<kbd class="on-button">P</kbd>
      </ElButton>
      <ElButton type="primary" @click="isAdding = true"
        >New instrument<kbd class="on-button">N</kbd></ElButton
      >
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
      />
      <ElSegmented v-model="family" :options="FAMILIES" aria-label="Family" />
      <ElCheckbox v-model="isDueOnly">Only what is due</ElCheckbox>
    </div>
    <div v-if="found.length" ref="list" class="scroll">
      <table class="ledger">
        <thead>
          <tr>
            <th scope="col" class="tick">
              <input
                type="checkbox"
                :checked="areAllChosen"
                :indeterminate="chosen.size > 0 && !areAllChosen"
                aria-label="Choose all of these"
                @change="chooseAll"
              />
            </th>
            <th scope="col">Instrument</th>
            <th scope="col">kind</th>
            <th scope="col" class="number">length, mm</th>
            <th scope="col">tapes</th>
            <th scope="col">with</th>
            <th scope="col">due</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="(row, index) in shown"
            :key="row.instrument.id"
            :aria-current="index === at"
            @click="open(row.instrument)"
          >
            <td class="tick" @click.stop>
              <input
                type="checkbox"
                :checked="chosen.has(row.instrument.id)"
                :aria-label="`Choose ${row.instrument.label}`"
                @change="choose(row.instrument.id)"
              />
            </td>
            <th scope="row">
              <RouterLink
                :to="{ name: 'instrument', params: { instrumentId: row.instrument.id } }"
                @click.stop
                >{{ row.instrument.label }}</RouterLink
              >
            </th>
            <td>{{ instrumentKind(row.instrument.family, row.instrument.sizeId) }}</td>
            <td class="number length">
              {{ row.instrument.measurement ? mm(row.instrument.measurement.lengthMm) : '—' }}
            </td>
            <td class="numbers">{{ row.tapes }}</td>
            <td dir="auto">{{ row.instrument.holder?.name ?? '' }}</td>
            <td class="due">{{ row.due }}</td>
          </tr>
        </tbody>
      </table>
      <ElButton v-if="found.length > shown.length" class="more" @click="limit += SHOWN_AT_ONCE">
        Show {{ Math.min(SHOWN_AT_ONCE, found.length - shown.length) }} more of {{ found.length }}
      </ElButton>
    </div>
    <div v-else-if="studio.instruments" class="empty">
      <h2>{{ studio.instruments.length ? 'No instrument is called that' : 'The cupboard is empty' }}</h2>
      <p class="soft">
        {{
          studio.instruments.length
            ? 'Try part of its number, its family or who has it.'
            : 'Write down the first instrument, or bring in a table you keep already.'
        }}
      </p>
    </div>
    <TableExport v-if="found.length" :table="table" />
  </section>
  <NewInstrument v-model="isAdding" />
  <StripDialog v-model="isPrinting" :sheets="sheets" />
</template>

<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { computed, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { FAMILY_IDS } from '#core'
import type { Instrument } from '#contracts'
import NewInstrument from '../features/instruments/NewInstrument.vue'
import { SHOWN_AT_ONCE, useCupboard } from '../features/instruments/useCupboard'
import { useRowKeys } from '../ui/useRowKeys'
import { useShortcuts } from '../ui/useShortcuts'
import TableExport from '../files/TableExport.vue'
import StripDialog from '../paper/StripDialog.vue'
import { useStudio } from '../stores/studio'
import { count, mm } from '../words/numbers'
import { FAMILY_NAMES, instrumentKind } from '../words/trade'

const FAMILIES = [
  { value: 'all', label: 'All' },
  ...FAMILY_IDS.map((value) => ({ value, label: FAMILY_NAMES[value] })),
]

const router = useRouter()
const studio = useStudio()
onMounted(() => studio.loadInstruments())

const {
  text,
  family,
  isDueOnly,
  limit,
  found,
  shown,
  chosen,
  areAllChosen,
  sheets,
  choose,
  chooseAll,
  table,
} = useCupboard()
const isPrinting = ref(false)
const isAdding = ref(false)

function open(instrument: Instrument) {
  void router.push({ name: 'instrument', params: { instrumentId: instrument.id } })
}

const search = ref<InputInstance>()
const list = ref<HTMLElement>()
const { at, shortcuts } = useRowKeys(
  computed(() => shown.value.length),
  list,
)
watch([text, family, isDueOnly], () => {
  limit.value = SHOWN_AT_ONCE
  at.value = 0
})
useShortcuts('Instruments', [
  ...shortcuts,
  {
    key: 'Enter',
    does: 'Open the instrument',
    run: () => shown.value[at.value] && open(shown.value[at.value]!.instrument),
  },
  {
    key: ' ',
    does: 'Choose it, or not',
    run: () => shown.value[at.value] && choose(shown.value[at.value]!.instrument.id),
  },
  { key: '/', does: 'Find an instrument', run: () => search.value?.focus() },
  { key: 'a', does: 'Choose all, or none', run: chooseAll },
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
  grid-template-columns: minmax(220px, 340px) auto auto;
  justify-content: start;
  gap: 14px;
  margin-bottom: 10px;
}

.scroll {
  overflow-x: auto;
}

.tick {
  width: 30px;
}

.tick input {
  width: 17px;
  height: 17px;
  accent-color: var(--jade);
}

tbody tr {
  cursor: pointer;
}

tbody tr[aria-current='true'] {
  background: var(--jade-wash);
}

th[scope='row'] {
  font-size: 16.5px;
}

.length {
  font-weight: 700;
  color: var(--jade);
  font-size: 18px;
}

.due {
  color: var(--brass-ink);
  font-weight: 600;
}

.more {
  margin-top: 10px;
}

@media (width <= 900px) {
  .tools {
    grid-template-columns: 1fr;
  }
}
</style>
