<template>
  <g>
    <g v-for="landing in drawn" :key="landing.finger" :class="landing.side">
      <circle :cx="landing.x" :cy="landing.y" r="13" class="finger" />
      <text
        :x="landing.x"
        :y="landing.y"
        class="finger-number"
        text-anchor="middle"
        dominant-baseline="central"
      >
        {{ landing.finger }}
      </text>

      <rect :x="landing.bandX" :y="laneTop" :width="landing.bandWidth" :height="LANE_PX" class="band" />
      <line
        :x1="landing.targetX"
        :x2="landing.targetX"
        :y1="laneTop"
        :y2="laneTop + LANE_PX"
        class="target"
      />
      <circle v-for="(dot, index) in landing.dots" :key="index" :cx="dot.x" :cy="dot.y" r="4.5" class="dot" />
      <text
        v-if="landing.isOff"
        :x="landing.wordX"
        :y="laneTop + LANE_PX - 7"
        :text-anchor="landing.wordAnchor"
        class="word"
      >
        {{ landing.word }}
      </text>
    </g>
  </g>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { sharpOrFlat } from '../words/numbers'
import { LANE_PX, type BoardLanding, type BoardScale } from './board'

const LANE_GAP_PX = 14
const DOT_STEP_PX = 11
const WORD_GAP_PX = 10

const props = defineProps<{ scale: BoardScale; landings: readonly BoardLanding[]; isFlipped: boolean }>()

const laneTop = computed(() => props.scale.bottom + LANE_GAP_PX)
const drawn = computed(() =>
  props.landings.map((landing) => {
    const { along, stringY } = props.scale
    const [low, high] = landing.toleranceMm.map((placeMm) => along(placeMm)) as [number, number]
    const isSharp = landing.meanCents > 0
    // Sharp lies towards the bridge: to the right, or to the left on a board turned round.
    const pointsRight = isSharp !== props.isFlipped
    const outermost = landing.notesMm.map((placeMm) => along(placeMm))
    const word = sharpOrFlat(landing.meanCents)
    return {
      ...landing,
      side: landing.isOff ? (isSharp ? 'sharp' : 'flat') : 'well',
      x: along(landing.meanMm),
      y: stringY(landing.stringIndex, landing.meanMm),
      targetX: along(landing.targetMm),
      bandX: Math.min(low, high),
      bandWidth: Math.abs(high - low),
      dots: landing.notesMm.map((placeMm, index) => ({
        x: along(placeMm),
        y: laneTop.value + 8 + (index % DOTS_IN_LANE) * DOT_STEP_PX,
      })),
      word: pointsRight ? `${word} ▶` : `◀ ${word}`,
      wordX: pointsRight ? Math.max(...outermost) + WORD_GAP_PX : Math.min(...outermost) - WORD_GAP_PX,
      wordAnchor: pointsRight ? 'start' : 'end',
    }
  }),
)
const DOTS_IN_LANE = Math.floor((LANE_PX - 8) / DOT_STEP_PX)
</script>

<style scoped>
.finger {
  fill: var(--card);
  stroke-width: 3;
}

.finger-number {
  fill: var(--ink);
  font: 700 14px var(--font-text);
}

.band {
  fill: var(--jade-wash);
}

.target {
  stroke: var(--jade);
  stroke-width: 1.75;
}

.well .finger {
  stroke: var(--jade);
}

.well .dot {
  fill: var(--jade);
}

.flat .finger {
  stroke: var(--flat);
}

.flat .dot,
.flat .word {
  fill: var(--flat);
}

.sharp .finger {
  stroke: var(--sharp);
}

.sharp .dot,
.sharp .word {
  fill: var(--sharp);
}

.word {
  paint-order: stroke;
  stroke: var(--card);
  stroke-width: 5px;
  stroke-linejoin: round;
  font: 700 15px var(--font-text);
}
</style>
