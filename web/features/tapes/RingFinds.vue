<template>
  <section class="finds" aria-label="What the rings say">
    <h3>
      The string rings like one of <strong class="numbers">{{ length(effectiveMm) }}</strong>
      <span class="soft">
        ({{ signedLength(calibration.lengthCorrectionMm) }} on what was measured).
        <template v-if="Math.abs(calibration.nutOffsetMm) >= 0.05"
          >It begins {{ length(Math.abs(calibration.nutOffsetMm)) }} nearer the
          {{ calibration.nutOffsetMm < 0 ? 'pegs' : 'bridge' }} than the edge of the nut that you measure
          from. Every number here reckons with it.</template
        >
      </span>
    </h3>
    <ul>
      <li v-for="one in tapes.judgedFinds" :key="one.find.id" :class="{ questioned: one.isQuestioned }">
        <span>
          <strong>{{ labelOfName(one.find.note, { octave: true }) }}</strong> on
          {{ withoutOctave(one.find.string) }} rings at
          <strong class="numbers">{{ inUnit(one.find.placeMm) }}</strong> {{ unitName() }}
        </span>
        <span class="off numbers"
          >{{ signedLength(one.offMm) }} from what the rest says, {{ Math.abs(one.sigmas).toFixed(1) }} times
          the usual scatter</span
        >
        <span class="acts">
          <ElButton v-if="one.isQuestioned" size="small" @click="bench.trustFind(one.find.id, true)"
            >Rung again: it is so</ElButton
          >
          <ElButton v-else-if="one.find.isTrusted" size="small" @click="bench.trustFind(one.find.id, false)"
            >No longer sure</ElButton
          >
          <ElButton size="small" @click="remove(one.find.id)">Remove</ElButton>
        </span>
        <p v-if="one.isQuestioned" class="why">
          Is that right? It disagrees with everything else, so it is left out until you ring it again.
          {{ one.belongs && whereaboutsSentence(one.belongs, one.find.placeMm) }}
        </p>
      </li>
    </ul>
    <TableExport :table="findsTable" />
  </section>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import TableExport from '../../files/TableExport.vue'
import type { DataTable } from '../../files/tables'
import { useBench } from '../../stores/bench'
import { UNDO, useNotices } from '../../stores/notices'
import { inUnit, length, signedLength, unitName } from '../../words/numbers'
import { labelOfName } from '../../words/notes'
import { whereaboutsSentence, withoutOctave } from '../../words/trade'
import { useTapes } from './useTapes'

/** What the places found by ring say together, and which of them disagree. */
const bench = useBench()
const tapes = useTapes()
const notices = useNotices()
const calibration = computed(() => bench.stringing.calibration!)
const effectiveMm = computed(() => bench.stringing.lengthMm + calibration.value.lengthCorrectionMm)

async function remove(id: string) {
  const undo = await bench.removeFind(id)
  notices.say('The found place is taken out; the places are as they were.', { label: UNDO, run: undo })
}

const findsTable = (): DataTable => ({
  name: 'places-found-by-ring',
  columns: ['string', 'note', 'place mm', 'off mm', 'off in standard deviations', 'questioned', 'found on'],
  rows: tapes.judgedFinds.map(({ find, offMm, sigmas, isQuestioned }) => [
    find.string,
    find.note,
    find.placeMm,
    Number(offMm.toFixed(2)),
    Number(sigmas.toFixed(1)),
    isQuestioned ? 'yes' : 'no',
    find.foundOn,
  ]),
})
</script>

<style scoped>
.finds {
  margin-top: 14px;
  padding-top: 12px;
  border-top: 1px solid var(--line);
}

.finds h3 {
  font-size: 18px;
  font-weight: 500;
}

.finds h3 strong {
  color: var(--jade);
  font-size: 24px;
}

ul {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
}

li {
  display: grid;
  grid-template-columns: minmax(220px, auto) 1fr auto;
  gap: 2px 16px;
  align-items: center;
  padding: 6px 10px;
  border-bottom: 1px solid var(--line);
}

li.questioned {
  border-radius: 6px;
  background: var(--sharp-wash);
}

.off {
  color: var(--ink-soft);
  font-size: 14.5px;
}

.why {
  grid-column: 1 / -1;
  color: var(--sharp);
  font-weight: 600;
  font-size: 15px;
}

.acts {
  display: flex;
  gap: 6px;
  white-space: nowrap;
}

.acts :deep(.el-button) {
  margin: 0;
}

@media (width <= 900px) {
  li {
    grid-template-columns: 1fr;
  }
}
</style>
