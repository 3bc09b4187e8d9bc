<template>
  <PatternsHead />
  <section class="choices" aria-label="Which shift">
    <KeyFields />
    <FieldRow label="String">
      <ElSegmented v-model="stringIndex" :options="strings" aria-label="String" />
    </FieldRow>
    <FieldRow label="From">
      <div class="place">
        <PlainSelect v-model="fromId" label="From position" :options="positions" />
        <ElSegmented v-model="fromFinger" :options="fromFingers" aria-label="From finger" />
      </div>
    </FieldRow>
    <FieldRow label="To">
      <div class="place">
        <PlainSelect v-model="toId" label="To position" :options="positions" />
        <ElSegmented v-model="toFinger" :options="fingers" aria-label="To finger" />
      </div>
    </FieldRow>
  </section>
  <section class="card answer" aria-live="polite">
    <template v-if="result.ok">
      <p class="distance numbers">
        {{ inUnit(Math.abs(result.shift.distanceMm))
        }}<small>{{ ` ${unitName()} towards the ${result.shift.distanceMm < 0 ? 'nut' : 'bridge'}` }}</small>
      </p>
      <p class="say">{{ guideSentence }}</p>
      <template v-if="staying.length > 0">
        <p class="soft">Under the hand before and after:</p>
        <ul class="staying">
          <li v-for="n in staying" :key="n.note"><b>{{ n.note }}</b> {{ n.how }}</li>
        </ul>
      </template>
      <p v-else class="soft">No note is under the hand in both positions.</p>
    </template>
    <template v-else>
      <h2>No such shift</h2>
      <p>{{ faultSentence }}</p>
    </template>
  </section>
  <section class="card">
    <StringBoard
      :stringing="bench.stringing"
      :fingers="boardFingers"
      :active-string="atlas.stringIndex.value"
      label="Fingerboard with the hand before and after the shift"
      show-places
      can-turn
    />
  </section>
  <section class="card" aria-label="All shifts">
    <p class="eyebrow">
      {{ fromFinger === 0 ? 'From the open string,' : `Guide ${fromFinger} from` }}
      {{ positionName(from) }} in {{ keyName(atlas.key.value) }}, {{ stringName }} string
    </p>
    <div class="table">
      <table class="ledger numbers">
        <thead>
          <tr>
            <th v-for="row in everyShift" :key="row.id" scope="col">{{ row.name }}</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <td v-for="row in everyShift" :key="row.id" :class="{ own: row.id === toId }">
              {{ row.distance }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="soft small">
      {{ unitName() }} the guide travels; positions as {{ family.id }} players name them.
    </p>
  </section>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import StringBoard from '../board/StringBoard.vue'
import KeyFields from '../features/patterns/KeyFields.vue'
import PatternsHead from '../features/patterns/PatternsHead.vue'
import { usePatterns } from '../features/patterns/usePatterns'
import { useShift } from '../features/patterns/useShift'
import { useBench } from '../stores/bench'
import FieldRow from '../ui/FieldRow.vue'
import PlainSelect from '../ui/PlainSelect.vue'
import { useShortcuts } from '../ui/useShortcuts'
import { inUnit, unitName } from '../words/numbers'
import { keyName } from '../words/keys'
import { positionName, shortPositionName } from '../words/positions'
import { noteLabel } from '../words/notes'

const patterns = usePatterns()
const { atlas } = patterns
const { family } = atlas
const bench = useBench()
const shift = useShift(patterns)
const { from, fromId, toId, fromFinger, toFinger, stringName, step } = shift
const { result, faultSentence, guideSentence, staying, boardFingers, everyShift } = shift

const stringIndex = computed({
  get: () => atlas.stringIndex.value,
  set: (i) => (patterns.choice.stringIndex = i),
})
const strings = computed(() =>
  atlas.tuning.value.map((open, value) => ({ value, label: noteLabel(open, { octave: false }) })),
)
const positions = computed(() =>
  family.value.positions.map((p) => ({ value: p.id, label: shortPositionName(p) })),
)
const fromFingers = computed(() => [{ value: 0, label: '0' }, ...fingers.value])
const fingers = computed(() => shift.offered.value.map((value) => ({ value, label: String(value) })))

useShortcuts('Shifts', [
  { key: '.', does: 'Shift further', run: () => step('toId', 1) },
  { key: ',', does: 'Shift less far', run: () => step('toId', -1) },
  { key: '>', does: 'Start higher', run: () => step('fromId', 1) },
  { key: '<', does: 'Start lower', run: () => step('fromId', -1) },
  { key: 'ArrowDown', does: 'Next key', run: () => atlas.moveKey(1) },
  { key: 'ArrowUp', does: 'Key before', run: () => atlas.moveKey(-1) },
  { key: 'ArrowRight', does: 'String above', run: () => atlas.moveString(1) },
  { key: 'ArrowLeft', does: 'String below', run: () => atlas.moveString(-1) },
])
</script>

<style scoped>
.place {
  display: grid;
  grid-template-columns: 92px auto;
  gap: 6px;
}

.card {
  margin-bottom: var(--gap);
}

.answer {
  display: grid;
  gap: 4px;
}

.distance {
  font: 700 40px/1.1 var(--font-text);
  color: var(--jade);
}

.distance small {
  font-size: 18px;
  font-weight: 600;
  color: var(--ink-soft);
}

.say {
  font: 500 20px/1.35 var(--font-title);
}

.staying {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 18px;
  margin: 0;
  padding: 0;
  list-style: none;
}

.table {
  overflow-x: auto;
}

.own {
  background: var(--jade-wash);
  color: var(--jade-deep);
  font-weight: 800;
}

.small {
  margin-top: 6px;
  font-size: 13.5px;
}
</style>
