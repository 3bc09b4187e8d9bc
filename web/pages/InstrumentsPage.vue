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
    <div v-if="found.length" ref="table" class="scroll">
      <table class="ledger">
        <thead>
          <tr>
            <th scope="col" class="tick">
              <input
                type="checkbox"
                :checked="allChosen"
                :indeterminate="chosen.size > 0 && !allChosen"
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
    <TableExport v-if="found.length" :table="exported" />
  </section>
  <NewInstrument v-model="isAdding" />
  <StripDialog v-model="isPrinting" :sheets="sheets" />
</template>

<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { computed, onMounted, reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { FAMILY_IDS, familyOf, isoDay, marksWithIds, type FamilyId } from '#core'
import type { Instrument } from '#contracts'
import { chartOf } from '../features/instruments/tape-chart'
import NewInstrument from '../features/instruments/NewInstrument.vue'
import { useRowKeys } from '../ui/useRowKeys'
import { useShortcuts } from '../ui/useShortcuts'
import { tapesDueOn } from '../features/today/useLessonDay'
import TableExport from '../files/TableExport.vue'
import type { DataTable } from '../files/tables'
import { sheetOf } from '../paper/sheet'
import StripDialog from '../paper/StripDialog.vue'
import { useStudio } from '../stores/studio'
import { dueWords } from '../words/due'
import { count, mm } from '../words/numbers'
import { FAMILY_NAMES, instrumentKind, shortMarkName } from '../words/trade'

/** A page draws so many rows at once; the rest waits until it is asked for. */
const SHOWN_AT_ONCE = 100
const FAMILIES = [
  { value: 'all', label: 'All' },
  ...FAMILY_IDS.map((value) => ({ value, label: FAMILY_NAMES[value] })),
]

const router = useRouter()
const studio = useStudio()
onMounted(() => studio.loadInstruments())

const today = isoDay(new Date())
const text = ref('')
const family = ref<FamilyId | 'all'>('all')
const isDueOnly = ref(false)
const limit = ref(SHOWN_AT_ONCE)
const chosen = reactive(new Set<string>())
const isPrinting = ref(false)
const isAdding = ref(false)
watch([text, family, isDueOnly], () => {
  limit.value = SHOWN_AT_ONCE
  at.value = 0
})

const found = computed(() => {
  const words = text.value.toLowerCase().split(/\s+/).filter(Boolean)
  return (studio.instruments ?? []).filter((i) => {
    if (family.value !== 'all' && i.family !== family.value) return false
    if (isDueOnly.value && tapesDueOn(i, today).length === 0) return false
    const all = `${i.label} ${i.family} ${i.sizeId} ${i.holder?.name ?? ''}`.toLowerCase()
    return words.every((word) => all.includes(word))
  })
})
const shown = computed(() =>
  found.value.slice(0, limit.value).map((instrument) => ({
    instrument,
    tapes: tapesOf(instrument),
    due: [...new Set(tapesDueOn(instrument, today).map(dueWords))][0] ?? '',
  })),
)
const allChosen = computed(() => found.value.length > 0 && found.value.every((i) => chosen.has(i.id)))

function tapesOf(instrument: Instrument): string {
  return instrument.tapes
    .map(({ markId, placeMm }) => {
      const [mark] = marksWithIds(familyOf(instrument.family), [markId])
      return `${mark ? shortMarkName(mark) : markId} at ${mm(placeMm)}`
    })
    .join(' · ')
}
function choose(id: string) {
  if (!chosen.delete(id)) chosen.add(id)
}
function chooseAll() {
  const ids = found.value.map((i) => i.id)
  if (allChosen.value) ids.forEach((id) => chosen.delete(id))
  else ids.forEach((id) => chosen.add(id))
}
function open(instrument: Instrument) {
  void router.push({ name: 'instrument', params: { instrumentId: instrument.id } })
}

/** Strips of what is chosen and measured; an instrument without a length has none. */
const sheets = computed(() =>
  (studio.instruments ?? []).flatMap((instrument) => {
    if (!chosen.has(instrument.id) || !instrument.measurement) return []
    const stringing = studio.stringingOf(instrument)
    const marks = chartOf(instrument, stringing)
    if (marks.length === 0) return []
    return [
      sheetOf({
        who: instrument.holder?.name,
        label: instrument.label,
        kind: instrumentKind(instrument.family, instrument.sizeId),
        stringing,
        marks,
      }),
    ]
  }),
)

const exported = (): DataTable => ({
  name: 'instruments',
  columns: ['label', 'family', 'size', 'length', 'tuning', 'measured on', 'tapes', 'with'],
  rows: found.value.map((i) => [
    i.label,
    i.family,
    i.sizeId,
    i.measurement ? Number(i.measurement.lengthMm.toFixed(2)) : null,
    i.tuning.join(' '),
    i.measurement?.measuredOn ?? null,
    tapesOf(i),
    i.holder?.name ?? null,
  ]),
})

const search = ref<InputInstance>()
const table = ref<HTMLElement>()
const { at, shortcuts } = useRowKeys(
  computed(() => shown.value.length),
  table,
)
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
