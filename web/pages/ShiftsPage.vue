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
        <ElSegmented v-model="fromFinger" :options="fingers" aria-label="From finger" />
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
        {{ mm(Math.abs(result.shift.distanceMm))
        }}<small> mm {{ result.shift.distanceMm < 0 ? 'towards the nut' : 'towards the bridge' }}</small>
      </p>
      <p class="say">
        {{ result.shift.guide }} guides: it slides lightly on the {{ stringName }} string from
        {{ mm(result.shift.guideFromMm) }} to {{ mm(result.shift.guideToMm) }} mm, the thumb with it; then
        {{ toFinger }} plays {{ arrival }}.
      </p>
      <template v-if="staying.length > 0">
        <p class="soft">Under the hand before and after:</p>
        <ul class="staying">
          <li v-for="n in staying" :key="n.note">
            <b>{{ n.note }}</b> {{ n.how }}
          </li>
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
      Guide {{ fromFinger }} from {{ positionName(from) }} in {{ keyName(atlas.key.value) }},
      {{ stringName }} string
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
    <p class="soft small">mm the guide travels; positions as {{ family.id }} players name them.</p>
  </section>
</template>

<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core'
import { computed } from 'vue'
import {
  noteName,
  placedStops,
  shiftBetween,
  type Finger,
  type Placement,
  type Position,
  type ShiftResult,
} from '#core'
import type { BoardFinger } from '../board/board'
import StringBoard from '../board/StringBoard.vue'
import KeyFields from '../features/patterns/KeyFields.vue'
import PatternsHead from '../features/patterns/PatternsHead.vue'
import PlainSelect from '../ui/PlainSelect.vue'
import FieldRow from '../ui/FieldRow.vue'
import { useShortcuts } from '../ui/useShortcuts'
import { usePatterns } from '../features/patterns/usePatterns'
import { useBench } from '../stores/bench'
import { mm, signedMm } from '../words/numbers'
import { keyName, positionName, shortPositionName } from '../words/patterns'

interface ShiftChoice {
  fromId: string
  toId: string
  fromFinger: Finger
  toFinger: Finger
}

const patterns = usePatterns()
const { atlas } = patterns
const bench = useBench()
const family = computed(() => atlas.family.value)
const choice = useSessionStorage<ShiftChoice>('jadefell.shift', {
  fromId: 'first',
  toId: 'third',
  fromFinger: 1,
  toFinger: 1,
})

/** Another family has other positions and fingers: the nearest that it has. */
const positionOf = (id: string, fallback: number): Position =>
  family.value.positions.find((p) => p.id === id) ?? family.value.positions[fallback]!
const from = computed(() => positionOf(choice.value.fromId, 1))
const to = computed(() => positionOf(choice.value.toId, 4))
const offered = computed(
  () => Object.keys(family.value.frames[atlas.context.value.frameIndex]!.offsets).map(Number) as Finger[],
)
const fingerOf = (finger: Finger) => (offered.value.includes(finger) ? finger : 1)

const fromId = computed({ get: () => from.value.id, set: (id) => (choice.value.fromId = id) })
const toId = computed({ get: () => to.value.id, set: (id) => (choice.value.toId = id) })
const fromFinger = computed({
  get: () => fingerOf(choice.value.fromFinger),
  set: (f) => (choice.value.fromFinger = f),
})
const toFinger = computed({
  get: () => fingerOf(choice.value.toFinger),
  set: (f) => (choice.value.toFinger = f),
})
const stringIndex = computed({
  get: () => atlas.stringIndex.value,
  set: (i) => (patterns.choice.stringIndex = i),
})

const strings = computed(() =>
  atlas.tuning.value.map((open, value) => ({ value, label: noteName(open, { octave: false }) })),
)
const positions = computed(() =>
  family.value.positions.map((p) => ({ value: p.id, label: shortPositionName(p) })),
)
const fingers = computed(() => offered.value.map((value) => ({ value, label: String(value) })))
const stringName = computed(() => noteName(atlas.tuning.value[stringIndex.value]!, { octave: false }))

function shiftTo(position: Position, finger: Finger): ShiftResult {
  return shiftBetween(atlas.context.value, bench.stringing, {
    key: atlas.key.value,
    stringIndex: stringIndex.value,
    from: from.value,
    to: position,
    fromFinger: fromFinger.value,
    toFinger: finger,
  })
}
const result = computed(() => shiftTo(to.value, toFinger.value))
const faultSentence = computed(() => {
  if (result.value.ok) return ''
  const where = positionName(result.value.position)
  return result.value.code === 'no_hand'
    ? `${keyName(atlas.key.value)} has no hand in ${where} on the ${stringName.value} string: choose another string or position.`
    : `${keyName(atlas.key.value)} has nothing for ${result.value.finger} in ${where} on the ${stringName.value} string: choose another finger.`
})
const arrival = computed(() => {
  if (!result.value.ok) return ''
  const stop = result.value.shift.to.stops.find((s) => s.finger === toFinger.value)
  return stop ? noteName(stop.note, { octave: false }) : ''
})
const staying = computed(() => {
  if (!result.value.ok) return []
  const name = (i: number) => noteName(atlas.tuning.value[i]!, { octave: false })
  return result.value.shift.staying.map(({ note, before, after }) => ({
    note: noteName(note),
    how: `${name(before.stringIndex)} ${before.finger} → ${name(after.stringIndex)} ${after.finger}`,
  }))
})

const boardFingers = computed<BoardFinger[]>(() => {
  if (!result.value.ok) return []
  const { shift } = result.value
  const both = [
    ...fingersOf(shift.from, fromFinger.value, false),
    ...fingersOf(shift.to, toFinger.value, true),
  ]
  // Where both hands have a finger at one place, the one that plays is shown, else the one that arrives.
  return both.filter(
    (f, i) => !f.isPale || !both.some((g, j) => i !== j && isSamePlace(f, g) && (!g.isPale || j > i)),
  )
})
const SAME_PLACE_MM = 1.5
function isSamePlace(a: BoardFinger, b: BoardFinger): boolean {
  return Math.abs(a.placeMm - b.placeMm) < SAME_PLACE_MM
}

function fingersOf(placement: Placement, sounding: Finger, isMarked: boolean): BoardFinger[] {
  return placedStops(bench.stringing, placement).map((stop) => ({
    stringIndex: placement.stringIndex,
    finger: stop.finger,
    placeMm: stop.placeMm,
    note: noteName(stop.note, { octave: false }),
    widthMm: patterns.fingertip.widthMm,
    isResting: false,
    isMarked,
    isPale: stop.finger !== sounding,
  }))
}

const everyShift = computed(() =>
  family.value.positions.map((position) => {
    const shift = shiftTo(position, fromFinger.value)
    return {
      id: position.id,
      name: shortPositionName(position),
      distance: position.id === from.value.id ? '0' : shift.ok ? signedMm(shift.shift.distanceMm) : '–',
    }
  }),
)

function step(which: 'fromId' | 'toId', by: number) {
  const list = family.value.positions
  const at = list.findIndex((p) => p.id === (which === 'fromId' ? from.value : to.value).id)
  choice.value[which] = list[Math.min(list.length - 1, Math.max(0, at + by))]!.id
}
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
