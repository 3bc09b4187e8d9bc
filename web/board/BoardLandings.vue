<template>
  <g>
    <g v-for="landing in drawn" :key="`band ${landing.stringIndex}-${landing.finger}-${landing.targetMm}`">
      <rect :x="landing.bandX" :y="laneTop" :width="landing.bandWidth" :height="LANE_PX" class="band" />
      <line
        :x1="landing.targetX"
        :x2="landing.targetX"
        :y1="laneTop"
        :y2="laneTop + LANE_PX"
        class="target"
      />
    </g>
    <g
      v-for="landing in drawn"
      :key="`${landing.stringIndex}-${landing.finger}-${landing.targetMm}`"
      :class="landing.side"
    >
      <circle v-if="landing.isShown" :cx="landing.x" :cy="landing.y" r="20" class="shown" />
      <circle
        v-if="landing.soundingX !== undefined"
        :cx="landing.soundingX"
        :cy="landing.y"
        r="19"
        class="sounding"
      />
      <circle :cx="landing.x" :cy="landing.y" :r="rows.size > 0 ? 12 : 13" class="finger" />
      <text
        :x="landing.x"
        :y="landing.y"
        class="finger-number"
        text-anchor="middle"
        dominant-baseline="central"
      >
        {{ fingerSign(landing.finger) }}
      </text>

      <circle v-for="(dot, index) in landing.dots" :key="index" :cx="dot.x" :cy="dot.y" r="4.5" class="dot" />
      <circle
        v-for="(dot, index) in landing.strays"
        :key="`stray ${index}`"
        :cx="dot.x"
        :cy="dot.y"
        r="4.5"
        class="stray"
      >
        <title>Left out, far from its like</title>
      </circle>
    </g>
    <text
      v-for="word in words"
      :key="word.id"
      :x="word.x"
      :y="wordsTop + word.row * WORD_ROW_PX"
      text-anchor="middle"
      :class="['word', word.isSharp ? 'sharp' : 'flat']"
    >
      {{ word.text }}
    </text>
  </g>
</template>

<script setup lang="ts">
import { fingerSign } from '../words/fingers'
import { computed } from 'vue'
import { LANE_PX, WORD_ROW_PX, type BoardLanding, type BoardScale, type LandingWord } from './board'

const LANE_GAP_PX = 14
const DOT_STEP_PX = 11

const props = defineProps<{
  scale: BoardScale
  landings: readonly BoardLanding[]
  words: readonly LandingWord[]
}>()

const laneTop = computed(() => props.scale.bottom + LANE_GAP_PX)
const wordsTop = computed(() => laneTop.value + LANE_PX + WORD_ROW_PX - 4)
/** Where several strings were played, each has its own row of the lane, in the order in which they are drawn. */
const rows = computed(() => {
  const strings = [...new Set(props.landings.map((l) => l.stringIndex))]
  if (strings.length < 2) return new Map<number, number>()
  strings.sort((a, b) => props.scale.stringY(a, 0) - props.scale.stringY(b, 0))
  return new Map(strings.map((stringIndex, row) => [stringIndex, row]))
})
const drawn = computed(() =>
  props.landings.map((landing) => {
    const { along, stringY } = props.scale
    const [low, high] = landing.toleranceMm.map((placeMm) => along(placeMm)) as [number, number]
    const isSharp = landing.meanCents > 0
    return {
      ...landing,
      side: landing.isOff ? (isSharp ? 'sharp' : 'flat') : 'well',
      x: along(landing.meanMm),
      y: stringY(landing.stringIndex, landing.meanMm),
      targetX: along(landing.targetMm),
      soundingX: landing.soundingMm === undefined ? undefined : along(landing.soundingMm),
      bandX: Math.min(low, high),
      bandWidth: Math.abs(high - low),
      dots: dotsAt(landing, landing.notesMm),
      strays: dotsAt(landing, landing.straysMm ?? []),
    }
  }),
)
function dotsAt({ stringIndex }: BoardLanding, placesMm: readonly number[]) {
  return placesMm.map((placeMm, index) => ({
    x: props.scale.along(placeMm),
    y: laneTop.value + 8 + ((rows.value.get(stringIndex) ?? index) % DOTS_IN_LANE) * DOT_STEP_PX,
  }))
}
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

.sounding {
  fill: var(--brass-wash);
  stroke: var(--brass);
  stroke-width: 2.5;
}

.shown {
  fill: none;
  stroke: var(--focus);
  stroke-width: 3;
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
.word.flat {
  fill: var(--flat);
}

.sharp .finger {
  stroke: var(--sharp);
}

.sharp .dot,
.word.sharp {
  fill: var(--sharp);
}

.stray {
  fill: var(--card);
  stroke: var(--ink-soft);
  stroke-width: 1.75;
}

.word {
  font: 700 15px var(--font-text);
}
</style>
