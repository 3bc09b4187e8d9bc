<template>
  <table class="ledger">
    <thead>
      <tr>
        <th scope="col">Tape</th>
        <th scope="col" class="number">near edge</th>
        <th scope="col" class="number">middle</th>
        <th scope="col" class="number">far edge</th>
        <th v-if="bench.fit.value" scope="col" class="number">±, 19 in 20</th>
        <th v-if="bench.fit.value" scope="col" class="number">by ring</th>
        <th v-if="bench.pressing.value" scope="col" class="number">by pressing</th>
        <th scope="col" class="number">tape’s width</th>
        <th scope="col">notes</th>
        <th scope="col" class="number">worst string</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(mark, index) in marks" :key="mark.id">
        <th scope="row">{{ markName(mark) }}</th>
        <td class="number">{{ mm(mark.nearEdgeMm) }}</td>
        <td class="number middle">{{ mm(mark.middleMm) }}</td>
        <td class="number">{{ mm(mark.farEdgeMm) }}</td>
        <td v-if="bench.fit.value" class="number">{{ mm(halfWidth(mark)) }}</td>
        <td v-if="bench.fit.value" class="number">
          {{ signedMm(mark.middleMm - (before[index]?.middleMm ?? mark.middleMm)) }}
        </td>
        <td v-if="bench.pressing.value" class="number">
          {{ signedMm(mark.middleMm - (unpressed[index]?.middleMm ?? mark.middleMm)) }}
        </td>
        <td class="number">{{ Math.round(mark.widthCents) }} cents</td>
        <td class="notes">{{ mark.strings.map((s) => noteName(s.note, { octave: false })).join(' ') }}</td>
        <td class="number">
          {{ noteName(mark.worst.open, { octave: false }) }} {{ signedCents(mark.worst.remainderCents) }} c
        </td>
      </tr>
    </tbody>
  </table>
  <TableExport :table="table" />
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { NINETEEN_IN_TWENTY, noteName, sigmaOnBed, type TapeMark } from '#core'
import TableExport from '../../files/TableExport.vue'
import type { DataTable } from '../../files/tables'
import { useBenchStore } from '../../stores/bench'
import { mm, signedCents, signedMm } from '../../words/numbers'
import { markName } from '../../words/trade'

const { bench } = useBenchStore()
const marks = computed(() => bench.marks.value)
const before = computed(() => bench.marksBeforeRings.value)
const unpressed = computed(() => bench.marksUnpressed.value)

function halfWidth(mark: TapeMark): number {
  return NINETEEN_IN_TWENTY * (sigmaOnBed(bench.bed.value, mark.strings[0]?.cents ?? 0) ?? 0)
}

const table = computed<DataTable>(() => ({
  name: 'tape-places',
  columns: [
    'tape',
    'near edge mm',
    'middle mm',
    'far edge mm',
    'plus minus mm',
    'width cents',
    'notes',
    'worst string',
    'worst cents',
  ],
  rows: marks.value.map((mark) => [
    markName(mark),
    Number(mark.nearEdgeMm.toFixed(2)),
    Number(mark.middleMm.toFixed(2)),
    Number(mark.farEdgeMm.toFixed(2)),
    bench.fit.value ? Number(halfWidth(mark).toFixed(2)) : null,
    Number(mark.widthCents.toFixed(1)),
    mark.strings.map((s) => noteName(s.note)).join(' '),
    noteName(mark.worst.open),
    Number(mark.worst.remainderCents.toFixed(1)),
  ]),
}))
</script>

<style scoped>
th[scope='row'] {
  color: var(--ink);
  font-size: 16px;
  white-space: nowrap;
  border-bottom: 1px solid var(--line);
}

.middle {
  color: var(--jade);
  font-size: 26px;
  font-weight: 700;
  line-height: 1.1;
}

.notes {
  letter-spacing: 0.04em;
  white-space: nowrap;
}
</style>
