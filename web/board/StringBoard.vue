<template>
  <figure class="board" :aria-label="label">
    <div class="bar" :class="{ quiet }">
      <p class="read numbers" aria-live="off">
        <template v-if="reading">
          <strong>{{ length(reading.placeMm) }}</strong>
          <span>{{ Math.round(reading.cents) }} cents above {{ reading.open }}</span>
          <span>{{ reading.note }} {{ signedCents(reading.noteCents) }}</span>
        </template>
      </p>
      <BoardViews v-if="!quiet">
        <button v-if="canTurn" type="button" :aria-pressed="isUpright" @click="turn">Upright</button>
      </BoardViews>
    </div>
    <div
      ref="frame"
      class="frame"
      role="slider"
      tabindex="0"
      title="Point at it, or focus it and press the arrow keys, to read a place."
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
      <svg
        aria-hidden="true"
        :class="{ upright: isUpright }"
        :viewBox="isUpright ? `0 0 ${height} ${width}` : `0 0 ${width} ${height}`"
        :width="isUpright ? height : width"
        :height="isUpright ? width : height"
      >
        <g :transform="isUpright ? `translate(${height} 0) rotate(90)` : undefined">
          <BoardWood :scale="scale" :is-flipped="isFlipped" />
          <BoardTapes
            :scale="scale"
            :tapes="tapes"
            :show-places="showPlaces && fingers.length === 0"
            :is-upright="isUpright"
          />
          <BoardGhosts v-if="ghosts.length > 0" :scale="scale" :tapes="ghosts" />
          <BoardStrings
            :scale="scale"
            :tuning="stringing.tuning"
            :is-flipped="isFlipped"
            :active-string="activeString"
          />
          <BoardTargets :scale="scale" :targets="targets" :is-aim="landings.length > 0 || aimOnly" />
          <BoardFingers
            v-if="fingers.length > 0"
            :scale="scale"
            :fingers="fingers"
            :is-upright="isUpright"
            :has-labels="showPlaces"
          />
          <BoardBefore v-if="before.length > 0" :scale="scale" :landings="before" />
          <BoardLandings v-if="landings.length > 0" :scale="scale" :landings="landings" :words="words" />
          <BoardRuler :scale="scale" :y="rulerY" :is-flipped="isFlipped" />
          <line
            v-if="cursorMm !== undefined"
            class="cursor"
            :x1="scale.along(cursorMm)"
            :x2="scale.along(cursorMm)"
            :y1="scale.top - 4"
            :y2="rulerY + 14"
          />
        </g>
      </svg>
    </div>
  </figure>
</template>

<script lang="ts">
/** How wide the board before it was: mostly so is the next one, and it is drawn once and not twice. */
let lastWidthPx = 0
</script>

<script setup lang="ts">
import { useWindowSize } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import type { Stringing } from '#core'
import { useAsStudio } from '../ui/asStudio'
import { useWidth } from '../ui/useWidth'
import { length, signedCents } from '../words/numbers'
import {
  boardScale,
  landingWords,
  LANE_PX,
  reachMm,
  WORD_ROW_PX,
  type BoardFinger,
  type BoardLanding,
  type BoardTape,
  type BoardTarget,
} from './board'
import BoardBefore from './BoardBefore.vue'
import BoardFingers from './BoardFingers.vue'
import BoardGhosts from './BoardGhosts.vue'
import BoardLandings from './BoardLandings.vue'
import BoardRuler from './BoardRuler.vue'
import BoardStrings from './BoardStrings.vue'
import BoardTapes from './BoardTapes.vue'
import BoardTargets from './BoardTargets.vue'
import BoardViews from './BoardViews.vue'
import BoardWood from './BoardWood.vue'
import { useBoardCursor } from './useBoardCursor'
import { useTurned } from './useTurned'
import { useZoom } from './useZoom'

/** With landings below it the board leaves room for them. */
const LOW_BOARD_PX = 152
const HIGH_BOARD_PX = 216
const RULER_PX = 38
/** Length of a board that stands on end: as long as the window has room for, so that fingers do not crowd. */
const UPRIGHT_PX = [500, 640] as const
const AROUND_UPRIGHT_PX = 255
const FINGER_STEP_MM = 20

const {
  stringing,
  tapes = [],
  ghosts = [],
  targets = [],
  fingers = [],
  landings = [],
  before = [],
  activeString = undefined,
  showPlaces = false,
  aimOnly = false,
  canTurn = false,
  isUprightFirst = false,
  quiet = false,
  label,
} = defineProps<{
  /** The instrument it is drawn for. */
  stringing: Stringing
  label: string
  tapes?: readonly BoardTape[]
  /** Tapes of another instrument, for comparison. */
  ghosts?: readonly BoardTape[]
  targets?: readonly BoardTarget[]
  fingers?: readonly BoardFinger[]
  landings?: readonly BoardLanding[]
  /** Where they landed another day. */
  before?: readonly BoardLanding[]
  activeString?: number | undefined
  /** Writes each tape's place above it. */
  showPlaces?: boolean
  /** Keeps room for landings that are still to come. */
  aimOnly?: boolean
  /** Offers to stand the board on end, as a cello or a bass stands before its player. */
  canTurn?: boolean
  /** Upright until somebody says otherwise. */
  isUprightFirst?: boolean
  /** Nothing stands above it: how it is shown is chosen elsewhere. */
  quiet?: boolean
}>()

const zoom = useZoom()
const isFlipped = useAsStudio('boardFacing')

const { isUpright: isTurned, turn } = useTurned(() => isUprightFirst)
const isUpright = computed(() => canTurn && isTurned.value)

const frame = ref<HTMLElement>()
const measured = useWidth(frame, lastWidthPx)
watch(measured, (px) => (lastWidthPx = px))
const frameWidth = computed(() => Math.max(320, Math.floor(measured.value)))
/** Along the strings, before the drawing is turned. */
const { height: windowHeight } = useWindowSize()
const uprightPx = computed(() =>
  Math.min(UPRIGHT_PX[1], Math.max(UPRIGHT_PX[0], windowHeight.value - AROUND_UPRIGHT_PX)),
)
const width = computed(() => (isUpright.value ? uprightPx.value : frameWidth.value))

const lastPlaceMm = computed(() =>
  Math.max(
    0,
    ...targets.map((t) => t.placeMm),
    // In steps, so that the drawing stands still while hands change on it.
    ...fingers.map((f) => Math.ceil((f.placeMm + f.widthMm / 2) / FINGER_STEP_MM) * FINGER_STEP_MM),
    ...tapes.map((t) => t.farEdgeMm),
    ...ghosts.map((t) => t.farEdgeMm),
    ...landings.map((l) => l.meanMm),
  ),
)
/** Where what is played begins. */
const handFromMm = computed(() => {
  const played = [...targets, ...fingers].map((one) => one.placeMm).concat(landings.map((l) => l.meanMm))
  return played.length > 0 ? Math.min(...played) : undefined
})
const above = computed(() => {
  if (!showPlaces) return 8
  if (isUpright.value) return 96
  return fingers.length > 0 ? 56 : 40
})
const hasLane = computed(() => landings.length > 0 || aimOnly)
const scale = computed(() =>
  boardScale(stringing, reachMm(stringing, zoom.value, lastPlaceMm.value), {
    width: width.value,
    above: above.value,
    left: 36,
    right: 12,
    maxBoardHeight: isUpright.value
      ? Math.min(HIGH_BOARD_PX, frameWidth.value - above.value - RULER_PX - 24)
      : hasLane.value
        ? LOW_BOARD_PX
        : HIGH_BOARD_PX,
    isFlipped: isFlipped.value,
    handFromMm: zoom.value === 'playing' ? handFromMm.value : undefined,
  }),
)
const reach = computed(() => scale.value.reachMm)
/** Room for one row of words is kept: it does not come and go while somebody types. */
const words = computed(() => landingWords(scale.value, landings, isFlipped.value, stringing.tuning))
const wordRows = computed(() => Math.max(1, ...words.value.map((word) => word.row + 1)))
const rulerY = computed(
  () => scale.value.bottom + (hasLane.value ? LANE_PX + 24 + wordRows.value * WORD_ROW_PX : 14),
)
const height = computed(() => rulerY.value + RULER_PX)

/** Every place that is drawn, in order from the nut: Page Up and Page Down go from one to the next. */
const marks = computed(() =>
  [...targets.map((t) => t.placeMm), ...fingers.map((f) => f.placeMm), ...tapes.map((t) => t.middleMm)].sort(
    (a, b) => a - b,
  ),
)
const { cursorMm, reading, openName, readOn, focusString, onMove, onKey } = useBoardCursor({
  stringing: () => stringing,
  scale,
  marks,
  activeString: () => activeString,
  isFlipped,
  isUpright,
  frame,
  frameWidth,
  height,
})
</script>

<style scoped>
.board {
  position: relative;
  margin: 0;
}

.bar {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
  min-height: 32px;
  margin-bottom: 4px;
}

.read {
  display: flex;
  flex: 1 1 120px;
  min-width: 0;
  overflow: hidden;
  white-space: nowrap;
  gap: 14px;
  font-size: 15px;
}

/* What is pointed at is read over the nut’s end, where the board leaves room. */
.bar.quiet {
  position: absolute;
  z-index: 1;
  top: 0;
  left: 36px;
  min-height: 0;
  margin: 0;
  padding: 0 8px;
  border-radius: 5px;
  background: var(--card);
}

.frame {
  overflow: hidden;
}

svg {
  display: block;
  max-width: 100%;
  margin: 0 auto;
}

/* Words stay level however the board stands. */
svg.upright :deep(text) {
  transform-box: fill-box;
  transform-origin: center;
  transform: rotate(-90deg);
}

.cursor {
  stroke: var(--brass);
  stroke-width: 1.5;
  pointer-events: none;
}
</style>
