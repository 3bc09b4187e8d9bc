<template>
  <p v-if="warning" class="heed" role="status">{{ warning }}</p>
  <table class="ledger">
    <thead>
      <tr>
        <th scope="col">Tape</th>
        <th v-for="open in bench.tuning" :key="noteName(open)" scope="col" class="number">
          {{ noteLabel(open, { octave: false }) }} wants
        </th>
        <th scope="col">laid square at</th>
        <th scope="col">or askew</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.mark.id">
        <th scope="row">{{ markName(row.mark) }}</th>
        <td v-for="(string, i) in row.mark.strings" :key="i" class="number">
          {{ inUnit(string.placeMm) }}
          <span class="remainder" :class="{ off: Math.abs(string.remainderCents) > ACROSS_TOLERANCE_CENTS }">
            {{ signedCents(string.remainderCents) }} cents</span
          >
        </td>
        <td>
          <strong class="numbers">{{ inUnit(row.mark.stopMm) }}</strong> {{ unitName() }}
          <span class="soft">worst {{ signedCents(row.mark.worst.remainderCents) }} cents</span>
        </td>
        <td>
          <template v-if="Math.abs(row.askew.degrees) >= 0.05">
            <strong class="numbers">{{ Math.abs(row.askew.degrees).toFixed(1) }}°</strong>
            <span class="soft">
              {{ leans(row.askew.degrees) }}, worst {{ Math.round(row.askew.worstCents) }} cents</span
            >
          </template>
          <span v-else class="soft">no better</span>
        </td>
      </tr>
    </tbody>
  </table>
  <TableExport :table="table" />
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { ACROSS_TOLERANCE_CENTS, askewTape, noteName, type TapeMark } from '#core'
import TableExport from '../../files/TableExport.vue'
import type { DataTable } from '../../files/tables'
import { useBench } from '../../stores/bench'
import { inUnit, signedCents, unitName } from '../../words/numbers'
import { markName } from '../../words/trade'
import { useTapes } from './useTapes'
import { noteLabel } from '../../words/notes'

const bench = useBench()
const tapes = useTapes()

const rows = computed(() =>
  tapes.marks.map((mark: TapeMark) => ({
    mark,
    askew: askewTape(
      bench.stringing,
      tapes.plan.find((planned) => planned.id === mark.id)!,
    ),
  })),
)

const warning = computed(() => {
  const bad = tapes.marks.filter((m) => Math.abs(m.worst.remainderCents) > ACROSS_TOLERANCE_CENTS)
  if (bad.length === 0) return undefined
  const which = `No straight tape serves every string within ${ACROSS_TOLERANCE_CENTS} cents at the ${bad.map(markName).join(', ')}.`
  const cause =
    bench.bridge?.code === 'askew'
      ? 'The bridge stands askew: have it set straight, or lay the tape as askew as it says.'
      : bench.bridge?.code === 'one_off'
        ? 'One string is of another length: measure it again.'
        : 'The tuning system asks different strings for different places: lay by the ring, or tape fewer fingers.'
  return `${which} ${cause}`
})

function leans(degrees: number): string {
  const low = noteLabel(bench.tuning[0]!, { octave: false })
  const high = noteLabel(bench.tuning.at(-1)!, { octave: false })
  return `${degrees > 0 ? high : low} side nearer the bridge`
}

const table = computed<DataTable>(() => ({
  name: 'tapes-across-the-strings',
  columns: [
    'tape',
    'square mm',
    'worst cents',
    'askew degrees',
    'askew worst cents',
    ...bench.tuning.flatMap((open) => [`${noteName(open)} mm`, `${noteName(open)} cents`]),
  ],
  rows: rows.value.map(({ mark, askew }) => [
    markName(mark),
    Number(mark.stopMm.toFixed(2)),
    Number(mark.worst.remainderCents.toFixed(1)),
    Number(askew.degrees.toFixed(2)),
    Number(askew.worstCents.toFixed(1)),
    ...mark.strings.flatMap((s) => [Number(s.placeMm.toFixed(2)), Number(s.remainderCents.toFixed(1))]),
  ]),
}))
</script>

<style scoped>
td {
  white-space: nowrap;
}

td .soft {
  display: block;
  font-size: 14px;
}

.remainder {
  display: block;
  color: var(--ink-soft);
  font-size: 13.5px;
}

.remainder.off {
  color: var(--sharp);
  font-weight: 700;
}
</style>
