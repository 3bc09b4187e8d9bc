<template>
  <section class="detail">
    <p class="visually-hidden" aria-live="polite">{{ said }}</p>
    <p class="eyebrow">
      {{ keyName(atlas.key.value) }} · {{ positionName(cell.position) }} · {{ stringName }} string
    </p>
    <template v-if="cell.kind === 'placement'">
      <h2>{{ cell.pattern ? patternName(family, cell.pattern) : 'Fingers slide' }}</h2>
      <p class="steps">
        <template v-if="cell.pattern"
          ><b>{{ stepsName(cell.pattern) }}</b>
          <template v-if="SPREAD_NAMES[cell.pattern.spread]">
            · {{ SPREAD_NAMES[cell.pattern.spread] }}</template
          ></template
        >
        · <span class="numbers">{{ length(spanMm) }}</span> from {{ first?.finger }} to {{ last?.finger }}
        <template v-if="family.frames.length > 1"> · {{ FRAME_NAMES[cell.frameId] }}</template>
      </p>
      <p v-if="cell.extension !== 'none'" class="extend">{{ extensionSentence(cell.extension) }}</p>
      <p v-else-if="elsewhere" class="extend">{{ elsewhere }}</p>
      <p v-if="atlas.key.value.mode.fallsAs" class="soft small">
        Going up; it comes down as the {{ MODE_NAMES[atlas.key.value.mode.fallsAs] }}.
      </p>
      <table class="ledger fingers numbers">
        <thead>
          <tr>
            <th>Finger</th>
            <th>Note</th>
            <th class="number">Semitones</th>
            <th class="number">{{ unitName() }}</th>
            <th class="number">Step</th>
            <th>Or open</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(stop, index) in places" :key="index" :class="{ resting: !stop.isInScale }">
            <td>{{ stopName(stop) }}</td>
            <td>
              <b>{{ noteLabel(stop.note, { octave: false }) }}</b>
              <span v-if="!stop.isInScale" class="soft"> rests</span>
            </td>
            <td class="number">{{ stop.semitones }}</td>
            <td class="number place">{{ inUnit(stop.placeMm) }}</td>
            <td class="number">{{ stop.stepMm === undefined ? '' : inUnit(stop.stepMm) }}</td>
            <td>{{ stop.openString === undefined ? '' : `${strings[stop.openString]} open` }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="noPlace" class="fault" role="alert">{{ noPlace }}</p>
      <p v-for="touch in touches" :key="touch.pair.join()" :class="['touch', touch.touching.advice]">
        {{ touchSentence(touch.pair, touch.touching) }}
      </p>
      <p v-if="touches.length > 0" class="soft small">
        Fingertips {{ length(patterns.fingertip.widthMm) }} wide{{
          FINGERTIP_SOURCES[patterns.fingertip.source]
        }}.
      </p>
    </template>
    <template v-else>
      <h2>{{ cell.reason === 'beyond_frame' ? 'The hand must move' : 'No hand here' }}</h2>
      <p>{{ noPlacementSentence(cell) }}</p>
    </template>
  </section>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { notesWithoutPlace, placedStops, touchingPairs } from '#core'
import { useBench } from '../../stores/bench'
import { inUnit, length, unitName } from '../../words/numbers'
import { keyName, MODE_NAMES } from '../../words/keys'
import {
  cellWords,
  extensionSentence,
  FRAME_NAMES,
  lowerPlaceSentence,
  noPlacementSentence,
  patternName,
  SPREAD_NAMES,
  stepsName,
  stopName,
  touchSentence,
} from '../../words/patterns'
import { positionName } from '../../words/positions'
import { noPlaceSentence } from '../../words/places'
import { usePatterns } from './usePatterns'
import { noteLabel } from '../../words/notes'

const FINGERTIP_SOURCES = {
  measured: '',
  age: ' at this age, from memory: measure one in the hand file',
  size: ' on hands for this size, from memory: measure one in the hand file',
  nothing: ', from memory: measure one in the hand file',
}

const patterns = usePatterns()
const bench = useBench()
const { atlas } = patterns
const family = computed(() => atlas.family.value)
const cell = computed(() => atlas.cell.value)
const strings = computed(() => atlas.tuning.value.map((open) => noteLabel(open, { octave: false })))
const stringName = computed(() => strings.value[atlas.stringIndex.value])

/** A cello's closed hand that lies below the position's own place: in half position, or its lower place. */
const elsewhere = computed(() =>
  cell.value.kind === 'placement' && cell.value.extension === 'none'
    ? lowerPlaceSentence(family.value, cell.value)
    : undefined,
)
/** Read aloud when the cell changes; the table below is there to be looked into. */
const said = computed(
  () =>
    `${keyName(atlas.key.value)}, ${positionName(cell.value.position)}, ${stringName.value} string: ${cellWords(family.value, cell.value)}`,
)
const places = computed(() =>
  cell.value.kind === 'placement' ? placedStops(bench.stringing, cell.value) : [],
)
const noPlace = computed(() => {
  const { stringIndex } = cell.value
  const stops = places.value.map(({ note }) => ({ note, stringIndex }))
  return noPlaceSentence(notesWithoutPlace(bench.stringing, stops).map(({ note }) => noteLabel(note)))
})
const first = computed(() => places.value[0])
const last = computed(() => places.value.at(-1))
const spanMm = computed(() => (last.value?.placeMm ?? 0) - (first.value?.placeMm ?? 0))
const touches = computed(() =>
  cell.value.kind === 'placement'
    ? touchingPairs(cell.value, places.value, patterns.fingertip.widthMm).filter(
        ({ touching }) => touching.advice !== 'room',
      )
    : [],
)
</script>

<style scoped>
.detail {
  display: grid;
  align-content: start;
  gap: 6px;
}

h2 {
  font-size: 25px;
}

.steps b {
  letter-spacing: 0.08em;
}

.extend {
  color: var(--brass-ink);
  font-weight: 600;
}

.fingers td,
.fingers th {
  padding: 3px 8px 3px 0;
}

.place {
  color: var(--jade);
  font-weight: 700;
}

.resting td {
  color: var(--ink-soft);
}

.touch {
  font-size: 15px;
}

.roll,
.lift,
.replace {
  color: var(--sharp);
  font-weight: 600;
}

.small {
  font-size: 13.5px;
}
</style>
