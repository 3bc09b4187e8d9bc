<template>
  <p v-if="tapes.thickness" class="heed" role="status">{{ tapes.thickness }}</p>
  <table class="ledger stacked">
    <thead>
      <tr>
        <th scope="col">Tape</th>
        <th scope="col" class="number">across the board</th>
        <th scope="col" class="number">round the neck</th>
        <th v-for="cents in TOLERANCES_CENTS" :key="cents" scope="col" class="number">
          ± {{ cents }} cents, {{ unitName() }}
        </th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.mark.id">
        <th scope="row">{{ markName(row.mark) }}</th>
        <td class="number" data-label="across">
          <strong>{{ cutLength(row.piece.acrossMm) }}</strong>
        </td>
        <td class="number" data-label="round">
          <strong>{{ cutLength(row.piece.roundMm) }}</strong>
        </td>
        <td
          v-for="tolerance in row.tolerances"
          :key="tolerance.cents"
          class="number"
          :data-label="`± ${tolerance.cents} cents`"
        >
          {{ signedInUnit(-tolerance.behindMm) }} {{ signedInUnit(tolerance.beyondMm) }}
        </td>
      </tr>
    </tbody>
  </table>
  <p class="soft note">
    Board width {{ girthSource }};
    {{ inStudioUnit('5 mm to turn under each edge, or 8 mm to overlap behind the neck') }}. Cut off the
    instrument; keep small cuttings away from small children.
  </p>
  <TableExport :table="table" />
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { toleranceMm, TOLERANCES_CENTS } from '#core'
import TableExport from '../../files/TableExport.vue'
import type { DataTable } from '../../files/tables'
import { useBench } from '../../stores/bench'
import { cutLength, inStudioUnit, signedInUnit, unitName } from '../../words/numbers'
import { markName } from '../../words/trade'
import { useTapes } from './useTapes'

const bench = useBench()
const tapes = useTapes()

const girthSource = computed(() =>
  tapes.girthMm === undefined
    ? 'and neck girth are typical ones, from memory'
    : 'is typical, girth as measured',
)
const rows = computed(() =>
  tapes.marks.map((mark) => ({
    mark,
    piece: tapes.pieceOf(mark),
    // Of the lowest string: strings of one instrument differ by less than is told.
    tolerances: TOLERANCES_CENTS.map((cents) => ({
      cents,
      ...toleranceMm(bench.stringing, 0, mark.stopMm, cents),
    })),
  })),
)
const table = computed<DataTable>(() => ({
  name: 'tapes-to-cut',
  columns: [
    'tape',
    'across mm',
    'round mm',
    ...TOLERANCES_CENTS.flatMap((c) => [`${c} cents behind mm`, `${c} cents beyond mm`]),
  ],
  rows: rows.value.map(({ mark, piece, tolerances }) => [
    markName(mark),
    ...[piece.acrossMm, piece.roundMm, ...tolerances.flatMap((t) => [t.behindMm, t.beyondMm])].map((v) =>
      Number(v.toFixed(2)),
    ),
  ]),
}))
</script>

<style scoped>
td {
  white-space: nowrap;
}

td strong {
  font-size: 20px;
  color: var(--jade);
}

.note {
  margin-top: 10px;
  font-size: 14.5px;
}
</style>
