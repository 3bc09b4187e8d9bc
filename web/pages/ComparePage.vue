<template>
  <header class="page-head">
    <h1>Changing size</h1>
    <p class="whose">Every tape moves, and the frame with them</p>
    <div class="actions">
      <ElButton @click="swap">Turn round<KeyHint of="r" on-button /></ElButton>
    </div>
  </header>
  <section class="card choose" aria-label="From and to">
    <FieldRow label="From">
      <FoundSelect v-model="fromId" label="From" :chosen-label="nameOf(fromId)" :find="find" />
    </FieldRow>
    <p class="arrow" aria-hidden="true">→</p>
    <FieldRow label="To">
      <FoundSelect v-model="toId" label="To" :chosen-label="nameOf(toId)" :find="find" />
    </FieldRow>
  </section>
  <section v-if="unmeasured" class="card empty" role="status">
    <h2>{{ unmeasured.label }} is not measured yet</h2>
    <p>
      Places follow from the string length. Measure it from nut to bridge at the tape bench, or choose a
      typical
      {{ instrumentKind(unmeasured.family, unmeasured.sizeId) }} here.
    </p>
    <p class="acts">
      <ElButton type="primary" @click="measure(unmeasured.id)"
        >Measure it<KeyHint of="t" on-button
      /></ElButton>
      <ElButton @click="useTypical(unmeasured)">Take a typical one<KeyHint of="y" on-button /></ElButton>
    </p>
  </section>
  <template v-else-if="from && to">
    <section class="card">
      <StringBoard
        :stringing="longer.stringing"
        :tapes="boardTapes(to)"
        :ghosts="boardTapes(from)"
        :label="`Tapes of ${from.name} and of ${to.name} on one board`"
        show-places
      />
      <p class="soft key">
        <span class="new" aria-hidden="true" /> {{ to.name }}, {{ length(to.stringing.lengthMm) }}
        <span class="old" aria-hidden="true" /> {{ from.name }}, {{ length(from.stringing.lengthMm) }}
      </p>
    </section>
    <section class="card moves" aria-label="What moves">
      <table class="ledger">
        <thead>
          <tr>
            <th scope="col">Tape</th>
            <th scope="col" class="number">from</th>
            <th scope="col" class="number">to</th>
            <th scope="col" class="number">moves</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="move in moves" :key="move.id">
            <th scope="row">{{ markName(move.to) }}</th>
            <td class="number">{{ inUnit(move.from.middleMm) }}</td>
            <td class="number middle">{{ inUnit(move.to.middleMm) }}</td>
            <td class="number">{{ signedLength(move.moveMm) }} {{ move.moveMm > 0 ? 'up' : 'down' }}</td>
          </tr>
          <tr v-for="frame in frames" :key="frame.frameId">
            <th scope="row">{{ FRAME_TITLES[frame.frameId] ?? frame.frameId }}</th>
            <td class="number">{{ inUnit(frame.fromMm) }}</td>
            <td class="number middle">{{ inUnit(frame.toMm) }}</td>
            <td class="number">
              {{ signedLength(frame.toMm - frame.fromMm) }}
              {{ frame.toMm > frame.fromMm ? 'wider' : 'narrower' }}
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="moves.length === 0" class="none soft">
        These two share no mark: their hands are shaped differently.
      </p>
      <p class="soft note">
        “Up” is towards the bridge. Take the old tapes off; a luthier removes stubborn glue. A wider frame
        than the hand holds without strain is too big. Never stretch the fourth finger to make it fit.
      </p>
      <TableExport :table="table" />
    </section>
  </template>
</template>

<script setup lang="ts">
import { computed, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import {
  chartTapes,
  FAMILY_IDS,
  familyOf,
  frameMoves,
  knownSystem,
  markMoves,
  marksOfSchool,
  marksWithIds,
  plainFractions,
  planTapes,
  typicalStringing,
  type TapeMark,
} from '#core'
import type { Instrument } from '#contracts'
import type { BoardTape } from '../board/board'
import StringBoard from '../board/StringBoard.vue'
import { useTapes } from '../features/tapes/useTapes'
import { chartOf } from '../features/instruments/tape-chart'
import FieldRow from '../ui/FieldRow.vue'
import FoundSelect from '../ui/FoundSelect.vue'
import { useShortcuts } from '../ui/useShortcuts'
import TableExport from '../files/TableExport.vue'
import type { DataTable } from '../files/tables'
import { useBench } from '../stores/bench'
import { useStudio } from '../stores/studio'
import { studioStringing } from '../stores/stringing'
import { inUnit, length, signedLength } from '../words/numbers'
import { FRAME_TITLES } from '../words/patterns'
import { instrumentKind, markName, shortMarkName } from '../words/trade'
import KeyHint from '../ui/KeyHint.vue'

const route = useRoute()
const router = useRouter()
const studio = useStudio()
const bench = useBench()
const tapes = useTapes()
/** What lies on the bench without being an instrument of the studio. */
const BENCH = 'bench'
const MOST_FOUND = 30

const TYPICAL = FAMILY_IDS.flatMap((family) =>
  familyOf(family).sizes.map((size) => ({
    value: `${family} ${size.id}`,
    label: `typical ${instrumentKind(family, size.id)}, from memory`,
  })),
)
const isBenchBare = computed(() => !bench.instrument && bench.stringing.isMeasured)

/** The bench, instruments of the cupboard, then every size as it typically is, as far as the text says them. */
async function find(text: string) {
  const { rows } = await studio.findInstruments({ q: text, limit: MOST_FOUND })
  const words = plainFractions(text).toLowerCase().split(/\s+/).filter(Boolean)
  const says = (said: string) => words.every((word) => said.toLowerCase().includes(word))
  return [
    ...(isBenchBare.value && says(nameOf(BENCH)) ? [{ value: BENCH, label: nameOf(BENCH) }] : []),
    ...rows.map((id) => ({ value: id, label: nameOf(id) })),
    ...TYPICAL.filter(({ value, label }) => says(`${value} ${label}`)),
  ]
}
function nameOf(id: string): string {
  if (id === BENCH) return `on the bench · ${instrumentKind(bench.family.id, bench.setup.sizeId)}`
  const i = studio.instrument(id)
  if (i) return `${i.label} · ${instrumentKind(i.family, i.sizeId)}${i.measurement ? '' : ', not measured'}`
  return TYPICAL.find(({ value }) => value === id)?.label ?? ''
}

const fromId = computed({
  get: () =>
    (route.query['from'] as string | undefined) ??
    bench.instrument?.id ??
    (isBenchBare.value ? BENCH : `${bench.family.id} ${bench.setup.sizeId}`),
  set: (from) => void router.replace({ query: { ...route.query, from } }),
})
const toId = computed({
  get: () => (route.query['to'] as string | undefined) ?? largerOf(fromId.value),
  set: (to) => void router.replace({ query: { ...route.query, to } }),
})

/** The next size up: what a child grows into. */
function largerOf(id: string): string {
  const instrument = studio.instrument(id)
  const [familyText = 'violin', ...size] =
    id === BENCH ? [bench.family.id, bench.setup.sizeId] : id.split(' ')
  const family = familyOf(instrument?.family ?? FAMILY_IDS.find((f) => f === familyText) ?? 'violin')
  const index = family.sizes.findIndex((s) => s.id === (instrument?.sizeId ?? size.join(' ')))
  return `${family.id} ${family.sizes[Math.max(0, index - 1)]?.id ?? '4/4'}`
}

/** Either side may be named by an address alone. */
watch(
  [fromId, toId],
  (ids) => {
    for (const id of ids) if (id.includes('-') && !studio.instrument(id)) void studio.loadInstrument(id)
  },
  { immediate: true },
)
/** One of the two that has no length: said, with what to do. */
const unmeasured = computed(() =>
  [fromId.value, toId.value].map((id) => studio.instrument(id)).find((i) => i && !i.measurement),
)
async function measure(id: string) {
  await bench.choose(id)
  void router.push({ name: 'tapes' })
}
function useTypical({ id, family, sizeId }: Instrument) {
  const typical = `${family} ${sizeId}`
  if (fromId.value === id) fromId.value = typical
  else toId.value = typical
}

function sideOf(id: string) {
  if (id === BENCH && isBenchBare.value)
    return { name: 'the bench', stringing: bench.stringing, marks: tapes.marks }
  const instrument = studio.instrument(id)
  if (instrument?.measurement) {
    const stringing = studioStringing(instrument)
    return { name: instrument.label, stringing, marks: chartOf(instrument, stringing) }
  }
  const family = FAMILY_IDS.map(familyOf).find((f) => id.startsWith(`${f.id} `))
  const size = family?.sizes.find((s) => id === `${family.id} ${s.id}`)
  if (!family || !size) return undefined
  const stringing = typicalStringing(family, size.id, knownSystem(studio.systemOf(undefined, undefined)))
  return {
    name: `typical ${instrumentKind(family.id, size.id)}`,
    stringing,
    marks: undefined,
  }
}

/** Every tape of either side on both: where one has none at a mark, it is reckoned where it would lie. */
const sides = computed(() => {
  const both = [sideOf(fromId.value), sideOf(toId.value)] as const
  const laid = new Set(both.flatMap((side) => side?.marks?.map(({ id }) => id) ?? []))
  return both.map((side) => {
    if (!side) return undefined
    const { stringing, marks = [] } = side
    const { family } = stringing
    const missing = [...laid].filter((id) => !marks.some((mark) => mark.id === id))
    // Two of no instrument at all are compared by every tape there is.
    const asked =
      laid.size === 0 ? marksOfSchool(family, family.schools.at(-1)!) : marksWithIds(family, missing)
    const all = [...marks, ...chartTapes(stringing, planTapes(stringing, asked))]
    return { ...side, marks: all.sort((a, b) => a.middleMm - b.middleMm) }
  })
})
const from = computed(() => sides.value[0])
const to = computed(() => sides.value[1])
const longer = computed(() =>
  from.value!.stringing.lengthMm > to.value!.stringing.lengthMm ? from.value! : to.value!,
)
const moves = computed(() => (from.value && to.value ? markMoves(from.value.marks, to.value.marks) : []))
const frames = computed(() =>
  from.value && to.value ? frameMoves(from.value.stringing, to.value.stringing) : [],
)

function boardTapes({ marks }: { marks: readonly TapeMark[] }): BoardTape[] {
  return marks
    .filter((mark) => moves.value.some((move) => move.id === mark.id))
    .map((mark) => ({ ...mark, label: shortMarkName(mark) }))
}
function swap() {
  void router.replace({ query: { from: toId.value, to: fromId.value } })
}
useShortcuts('Changing size', [
  { key: 'r', does: 'Turn round', run: swap },
  {
    key: 't',
    does: 'Measure the one that is not',
    run: () => unmeasured.value && void measure(unmeasured.value.id),
  },
  {
    key: 'y',
    does: 'Take a typical one in its place',
    run: () => unmeasured.value && useTypical(unmeasured.value),
  },
])

const table = computed<DataTable>(() => ({
  name: 'changing-size',
  columns: ['what', 'from mm', 'to mm', 'moves mm'],
  rows: [
    ...moves.value.map(
      (move) => [markName(move.to), move.from.middleMm, move.to.middleMm, move.moveMm] as const,
    ),
    ...frames.value.map((f) => [`frame ${f.frameId}`, f.fromMm, f.toMm, f.toMm - f.fromMm] as const),
  ].map(([what, ...numbers]) => [what, ...numbers.map((n) => Number(n.toFixed(2)))]),
}))
</script>

<style scoped>
.choose {
  display: grid;
  grid-template-columns: 1fr auto 1fr;
  gap: 16px;
  align-items: end;
  margin-bottom: var(--gap);
}

.arrow {
  font: 400 26px/1.4 var(--font-title);
  color: var(--brass);
}

.key {
  display: flex;
  align-items: center;
  gap: 8px;
  font-size: 14.5px;
}

.key span {
  display: inline-block;
  width: 22px;
  height: 12px;
  border-radius: 2px;
}

.key .new {
  background: var(--tape);
  border: 1px solid var(--line-strong);
}

.key .old {
  margin-left: 14px;
  border: 1.5px dashed var(--brass);
}

.moves {
  margin-top: var(--gap);
}

.middle {
  color: var(--jade);
  font-size: 24px;
  font-weight: 700;
  line-height: 1.1;
}

.note,
.none {
  margin-top: 10px;
  font-size: 14.5px;
}
</style>
