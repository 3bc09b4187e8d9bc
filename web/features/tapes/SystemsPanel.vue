<template>
  <div class="scroll">
    <table class="ledger stacked">
      <thead>
        <tr>
          <th scope="col">Tune by</th>
          <th v-for="mark in tapes.chosenMarks" :key="mark.id" scope="col" class="number">
            {{ markName(mark) }}
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(system, s) in systems" :key="system.id" :aria-current="system.id === setup.systemId">
          <th scope="row">
            <button type="button" @click="setup.systemId = system.id">
              {{ shortSystemName(system.id) }}
            </button>
          </th>
          <td
            v-for="(moves, m) in table"
            :key="m"
            class="number"
            :data-label="tapes.chosenMarks[m] && markName(tapes.chosenMarks[m])"
          >
            <template v-if="moves[s]">
              <strong>{{ inUnit(moves[s].placeMm) }}</strong>
              <span class="soft move">
                {{ signedLength(moves[s].moveMm) }}, {{ signedCents(moves[s].moveCents) }} cents</span
              >
              <span v-if="moves[s].worstCents > 0.5" class="soft move">
                leaves {{ Math.round(moves[s].worstCents) }} cents</span
              >
            </template>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
  <TableExport :table="exported" />
</template>

<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed } from 'vue'
import { noteName, systemMoves, tuningSystem, readScaleId } from '#core'
import TableExport from '../../files/TableExport.vue'
import type { DataTable } from '../../files/tables'
import { useBench } from '../../stores/bench'
import { inUnit, signedCents, signedLength } from '../../words/numbers'
import { markName, shortSystemName } from '../../words/trade'
import { useTapes } from './useTapes'

const bench = useBench()
const tapes = useTapes()
const { setup } = storeToRefs(bench)

/** The schools' systems, just on each open string, and whatever is chosen now. */
const systems = computed(() => {
  const open = bench.tuning.map((n) => `just:${noteName(n, { octave: false })}`)
  const own = readScaleId(setup.value.systemId) ? [setup.value.systemId] : []
  const ids = ['fifths', 'equal', ...new Set([...open, ...own, setup.value.systemId])]
  return [...new Set(ids)].flatMap((id) => tuningSystem(id) ?? [])
})
const table = computed(() => systemMoves(bench.stringing, tapes.chosenMarks, systems.value))

const exported = computed<DataTable>(() => ({
  name: 'tapes-by-tuning-system',
  columns: ['system', 'tape', 'place mm', 'move mm', 'move cents', 'left over cents'],
  rows: systems.value.flatMap((system, s) =>
    tapes.chosenMarks.map((mark, m) => {
      const move = table.value[m]![s]!
      return [
        shortSystemName(system.id),
        markName(mark),
        ...[move.placeMm, move.moveMm, move.moveCents, move.worstCents].map((v) => Number(v.toFixed(2))),
      ]
    }),
  ),
}))
</script>

<style scoped>
.scroll {
  overflow-x: auto;
}

th[scope='row'] button {
  border: 0;
  padding: 0;
  background: none;
  color: var(--ink);
  font: 600 16px var(--font-text);
  text-align: left;
  cursor: pointer;
}

tr[aria-current='true'] {
  background: var(--jade-wash);
}

tr[aria-current='true'] button {
  color: var(--jade);
}

td strong {
  font-size: 17px;
}

.move {
  display: block;
  font-size: 13.5px;
  white-space: nowrap;
}
</style>
