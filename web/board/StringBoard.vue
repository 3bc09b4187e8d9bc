<template>
  <figure class="board" :aria-label="label">
    <div class="bar">
      <p class="read numbers" aria-live="off">
        <template v-if="reading">
          <strong>{{ reading.placeMm.toFixed(1) }} mm</strong>
          <span>{{ Math.round(reading.cents) }} cents above {{ reading.open }}</span>
          <span>{{ reading.note }} {{ signedCents(reading.noteCents) }}</span>
        </template>
        <span v-else class="soft">Point at the board, or focus it and press the arrow keys.</span>
      </p>
      <div class="views" role="group" aria-label="How the board is shown">
        <button v-for="z in ZOOMS" :key="z" type="button" :aria-pressed="zoom === z" @click="zoom = z">
          {{ ZOOM_NAMES[z] }}
        </button>
        <button type="button" :aria-pressed="isFlipped" @click="isFlipped = !isFlipped">Facing</button>
      </div>
    </div>
    <div
      ref="frame"
      class="frame"
      role="slider"
      tabindex="0"
      :aria-label="`Place on the ${reading?.open ?? openName} string, mm from the nut`"
      aria-valuemin="0"
      :aria-valuemax="Number(reach.toFixed(1))"
      :aria-valuenow="Number((cursorMm ?? 0).toFixed(1))"
      :aria-valuetext="
        reading
          ? `${reading.placeMm.toFixed(1)} mm, ${reading.note} ${signedCents(reading.noteCents)} cents`
          : 'nut'
      "
      @focus="readOn(focusString, marks[0] ?? 0)"
      @keydown="onKey"
      @mousemove="onMove"
      @mouseleave="cursorMm = undefined"
      @blur="cursorMm = undefined"
    >
      <svg aria-hidden="true" :viewBox="`0 0 ${width} ${height}`" :width="width" :height="height">
        <BoardWood :scale="scale" :is-flipped="isFlipped" />
        <BoardTapes :scale="scale" :tapes="tapes" :show-places="showPlaces" />
        <BoardGhosts v-if="ghosts.length > 0" :scale="scale" :tapes="ghosts" />
        <BoardStrings
          :scale="scale"
          :instrument="instrument"
          :is-flipped="isFlipped"
          :active-string="activeString"
        />
        <BoardTargets :scale="scale" :targets="targets" :is-aim="landings.length > 0 || aimOnly" />
        <BoardLandings
          v-if="landings.length > 0"
          :scale="scale"
          :landings="landings"
          :is-flipped="isFlipped"
        />
        <BoardRuler :scale="scale" :y="rulerY" :is-flipped="isFlipped" />
        <line
          v-if="cursorMm !== undefined"
          class="cursor"
          :x1="scale.along(cursorMm)"
          :x2="scale.along(cursorMm)"
          :y1="scale.top - 4"
          :y2="rulerY + 14"
        />
      </svg>
    </div>
  </figure>
</template>

<script setup lang="ts">
import { useElementSize, useLocalStorage } from '@vueuse/core'
import { computed, ref } from 'vue'
import { noteName } from '#core'
import { signedCents } from '../words/numbers'
import {
  boardScale,
  LANE_PX,
  reachMm,
  readPlace,
  ZOOMS,
  type BoardInstrument,
  type BoardLanding,
  type BoardTape,
  type BoardTarget,
  type Zoom,
} from './board'
import BoardGhosts from './BoardGhosts.vue'
import BoardLandings from './BoardLandings.vue'
import BoardRuler from './BoardRuler.vue'
import BoardStrings from './BoardStrings.vue'
import BoardTapes from './BoardTapes.vue'
import BoardTargets from './BoardTargets.vue'
import BoardWood from './BoardWood.vue'

const ZOOM_NAMES: Record<Zoom, string> = { playing: 'Playing area', octave: 'Octave', board: 'Whole board' }
/** With landings below it the board leaves room for them. */
const LOW_BOARD_PX = 152
const HIGH_BOARD_PX = 200
const RULER_PX = 38
const KEY_STEP_MM = 0.5
const NEAR_MM = 0.05

const {
  instrument,
  tapes = [],
  ghosts = [],
  targets = [],
  landings = [],
  activeString = undefined,
  showPlaces = false,
  aimOnly = false,
  label,
} = defineProps<{
  instrument: BoardInstrument
  label: string
  tapes?: readonly BoardTape[]
  /** Tapes of another instrument, for comparison. */
  ghosts?: readonly BoardTape[]
  targets?: readonly BoardTarget[]
  landings?: readonly BoardLanding[]
  activeString?: number | undefined
  /** Writes each tape's place above it. */
  showPlaces?: boolean
  /** Keeps room for landings that are still to come. */
  aimOnly?: boolean
}>()

const zoom = useLocalStorage<Zoom>('jadefell.board.zoom', 'playing')
const isFlipped = useLocalStorage('jadefell.board.facing', false)

const frame = ref<HTMLElement>()
const { width: measured } = useElementSize(frame)
const width = computed(() => Math.max(320, Math.floor(measured.value)))

const lastPlaceMm = computed(() =>
  Math.max(
    0,
    ...targets.map((t) => t.placeMm),
    ...tapes.map((t) => t.farEdgeMm),
    ...ghosts.map((t) => t.farEdgeMm),
    ...landings.map((l) => l.meanMm),
  ),
)
const hasLane = computed(() => landings.length > 0 || aimOnly)
const scale = computed(() =>
  boardScale(instrument, reachMm(instrument, zoom.value, lastPlaceMm.value), {
    width: width.value,
    above: showPlaces ? 40 : 8,
    left: 36,
    right: 12,
    maxBoardHeight: hasLane.value ? LOW_BOARD_PX : HIGH_BOARD_PX,
    isFlipped: isFlipped.value,
  }),
)
const reach = computed(() => scale.value.reachMm)
const rulerY = computed(() => scale.value.bottom + (hasLane.value ? LANE_PX + 24 : 14))
const height = computed(() => rulerY.value + RULER_PX)

/** The place somebody points at, and on which string. */
const cursorMm = ref<number>()
const cursorString = ref<number>()
const focusString = computed(() => cursorString.value ?? activeString ?? instrument.tuning.length - 1)
const openName = computed(() => {
  const open = instrument.tuning[focusString.value]
  return open ? noteName(open, { octave: false }) : ''
})
const reading = computed(() =>
  cursorMm.value === undefined ? undefined : readPlace(instrument, focusString.value, cursorMm.value),
)

function readOn(stringIndex: number, placeMm: number) {
  cursorString.value = stringIndex
  cursorMm.value = Math.min(reach.value, Math.max(0, placeMm))
}

function onMove(event: MouseEvent) {
  const box = frame.value?.getBoundingClientRect()
  if (!box) return
  const placeMm = scale.value.along.invert(event.clientX - box.left)
  if (placeMm < 0 || placeMm > reach.value) return void (cursorMm.value = undefined)
  const y = event.clientY - box.top
  const distances = instrument.tuning.map((_, index) => Math.abs(scale.value.stringY(index, placeMm) - y))
  readOn(distances.indexOf(Math.min(...distances)), placeMm)
}

/** Every place that is drawn, in order from the nut: Page Up and Page Down go from one to the next. */
const marks = computed(() =>
  [...targets.map((t) => t.placeMm), ...tapes.map((t) => t.middleMm)].sort((a, b) => a - b),
)

function onKey(event: KeyboardEvent) {
  const along = isFlipped.value ? -KEY_STEP_MM : KEY_STEP_MM
  const moves: Record<string, () => void> = {
    ArrowRight: () => readOn(focusString.value, (cursorMm.value ?? 0) + along),
    ArrowLeft: () => readOn(focusString.value, (cursorMm.value ?? 0) - along),
    ArrowUp: () => readOn(stringBeside(1), cursorMm.value ?? 0),
    ArrowDown: () => readOn(stringBeside(-1), cursorMm.value ?? 0),
    PageUp: () =>
      readOn(focusString.value, marks.value.find((m) => m > (cursorMm.value ?? 0) + NEAR_MM) ?? reach.value),
    PageDown: () =>
      readOn(focusString.value, marks.value.findLast((m) => m < (cursorMm.value ?? 0) - NEAR_MM) ?? 0),
    Home: () => readOn(focusString.value, 0),
    End: () => readOn(focusString.value, reach.value),
  }
  const move = moves[event.key]
  if (!move || event.target !== frame.value) return
  event.preventDefault()
  move()
}

function stringBeside(by: number): number {
  const step = isFlipped.value ? -by : by
  return Math.min(instrument.tuning.length - 1, Math.max(0, focusString.value + step))
}
</script>

<style scoped>
.board {
  margin: 0;
}

.bar {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
  min-height: 32px;
  margin-bottom: 4px;
}

.read {
  display: flex;
  gap: 14px;
  font-size: 15px;
}

.views {
  display: flex;
  gap: 2px;
}

.views button {
  border: 0;
  border-radius: 5px;
  padding: 4px 10px;
  background: none;
  color: var(--ink-soft);
  font: 600 14px var(--font-text);
  cursor: pointer;
}

.views button[aria-pressed='true'] {
  background: var(--jade-wash);
  color: var(--jade-deep);
}

.views button:hover {
  color: var(--ink);
}

.frame {
  overflow: hidden;
}

svg {
  display: block;
  max-width: 100%;
}

.cursor {
  stroke: var(--brass);
  stroke-width: 1.5;
  pointer-events: none;
}
</style>
