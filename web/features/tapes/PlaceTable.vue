<template>
  <table class="ledger stacked">
    <thead>
      <tr>
        <th scope="col">Tape</th>
        <th scope="col" class="number">middle</th>
        <th scope="col">near and far edge</th>
        <th v-if="strings.calibration" scope="col" class="number">± (95 %)</th>
        <th v-if="strings.calibration" scope="col" class="number">by ring</th>
        <th v-if="strings.pressing" scope="col" class="number">by pressing</th>
        <th scope="col" class="number">wide</th>
        <th v-if="hasWorst" scope="col" class="number">worst string</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="mark in marks" :key="mark.id">
        <th scope="row">
          {{ markName(mark) }}
          <span class="notes soft">{{
            mark.strings.map((s) => noteLabel(s.note, { octave: false })).join(' ')
          }}</span>
        </th>
        <td class="number middle" data-label="middle">{{ inUnit(mark.middleMm) }}</td>
        <td class="numbers edges" data-label="edges">
          {{ inUnit(mark.nearEdgeMm) }} – {{ inUnit(mark.farEdgeMm) }}
        </td>
        <td v-if="strings.calibration" class="number" data-label="±">{{ inUnit(halfWidth(mark)) }}</td>
        <td v-if="strings.calibration" class="number" data-label="by ring">
          {{ signedInUnit(mark.middleMm - (middleIn(before, mark) ?? mark.middleMm)) }}
        </td>
        <td v-if="strings.pressing" class="number" data-label="by pressing">
          {{ signedInUnit(mark.middleMm - (middleIn(unpressed, mark) ?? mark.middleMm)) }}
        </td>
        <td class="number" data-label="wide">{{ Math.round(mark.widthCents) }} cents</td>
        <td v-if="hasWorst" class="number" data-label="worst string">
          {{ noteLabel(mark.worst.open, { octave: false }) }}
          {{ signedCents(mark.worst.remainderCents) }} cents
        </td>
      </tr>
    </tbody>
  </table>
  <p v-if="noPlace" class="fault" role="alert">{{ noPlace }}</p>
  <TableExport :table="table" />
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { NORMAL_95, noteName, placeSigmaMm, type TapeMark } from '#core'
import TableExport from '../../files/TableExport.vue'
import type { DataTable } from '../../files/tables'
import { useBench } from '../../stores/bench'
import { inUnit, signedCents, signedInUnit } from '../../words/numbers'
import { noPlaceSentence } from '../../words/places'
import { markName } from '../../words/trade'
import { useTapes } from './useTapes'
import { noteLabel } from '../../words/notes'

const bench = useBench()
const tapes = useTapes()
const strings = computed(() => bench.stringing)
const marks = computed(() => tapes.marks)
const before = computed(() => tapes.marksBeforeRings)
/** What one straight tape leaves over is only said where there is something to say. */
const hasWorst = computed(() => marks.value.some((m) => Math.abs(m.worst.remainderCents) >= 0.5))
const unpressed = computed(() => tapes.marksUnpressed)

const noPlace = computed(() => noPlaceSentence(tapes.withoutPlace.map(markName)))
const middleIn = (others: readonly TapeMark[], mark: TapeMark) =>
  others.find((other) => other.id === mark.id)?.middleMm

function halfWidth(mark: TapeMark): number {
  return NORMAL_95 * (placeSigmaMm(bench.stringing, mark.strings[0]?.cents ?? 0) ?? 0)
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
    bench.stringing.calibration ? Number(halfWidth(mark).toFixed(2)) : null,
    Number(mark.widthCents.toFixed(1)),
    mark.strings.map((s) => noteName(s.note)).join(' '),
    noteName(mark.worst.open),
    Number(mark.worst.remainderCents.toFixed(1)),
  ]),
}))
</script>

<style scoped>
.middle {
  color: var(--jade);
  font-size: 26px;
  font-weight: 700;
  line-height: 1.1;
}

.edges {
  white-space: nowrap;
}

.notes {
  display: block;
  font-weight: 400;
  font-size: 14px;
  letter-spacing: 0.05em;
}
</style>
