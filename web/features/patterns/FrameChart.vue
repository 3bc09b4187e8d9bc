<template>
  <figure ref="frame" class="chart">
    <figcaption class="eyebrow">Width of the frame along the neck, mm</figcaption>
    <svg
      :viewBox="`0 0 ${width} ${HEIGHT}`"
      :width="width"
      :height="HEIGHT"
      role="img"
      :aria-label="`Width of the frame from half position to the octave, ${lines.length} lines`"
    >
      <template v-if="band">
        <rect
          :x="LEFT"
          :width="width - LEFT - right"
          :y="band.comfortableY"
          :height="bottomY - band.comfortableY"
          class="comfortable"
        />
        <rect
          :x="LEFT"
          :width="width - LEFT - right"
          :y="band.reachedY"
          :height="band.comfortableY - band.reachedY"
          class="reached"
        />
      </template>
      <g v-for="tick in y.ticks(6)" :key="`y${tick}`">
        <line :x1="LEFT" :x2="width - right" :y1="y(tick)" :y2="y(tick)" class="grid" />
        <text :x="LEFT - 8" :y="y(tick)" text-anchor="end" dominant-baseline="central">{{ tick }}</text>
      </g>
      <text
        v-for="place in places"
        :key="`x${place.semitones}`"
        :x="x(place.semitones)"
        :y="HEIGHT - 8"
        text-anchor="middle"
      >
        {{ place.name }}
      </text>
      <g v-for="one in labelled" :key="one.id" :class="['line', { own: one.isOwn }]">
        <path :d="one.path" :stroke-dasharray="one.dash" />
        <circle v-for="point in one.points" :key="point.x" :cx="point.x" :cy="point.y" r="2.6" />
        <text :x="width - right + 8" :y="one.labelY" dominant-baseline="central" class="name">
          {{ one.name }}
        </text>
      </g>
      <template v-if="band">
        <text :x="width - right - 8" :y="band.comfortableY + 16" text-anchor="end" class="band-name">
          comfortable, {{ mm(band.comfortableMm) }} mm
        </text>
        <text :x="width - right - 8" :y="band.reachedY - 6" text-anchor="end" class="band-name">
          {{
            band.isReachMeasured
              ? `reached, ${mm(band.reachedMm)} mm`
              : `reach about ${mm(band.reachedMm)} mm, from memory`
          }}
        </text>
      </template>
    </svg>
  </figure>
</template>

<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { max } from 'd3-array'
import { scaleLinear } from 'd3-scale'
import { line } from 'd3-shape'
import { computed, ref } from 'vue'
import { OCTAVE_SEMITONES } from '#core'
import { mm } from '../../words/numbers'
import { keptApart } from '../shell/keptApart'
import type { FrameLine, HandBand } from './frame-lines'

const HEIGHT = 330
const TOP = 14
const BOTTOM = 30
const LEFT = 44
/** Room for the names at the ends of the lines. */
const LETTER_PX = 7.5
const NAME_GAP_PX = 20
const LABEL_STEP = 16

const props = defineProps<{
  lines: readonly FrameLine[]
  /** Names of the places along the neck. */
  places: readonly { readonly semitones: number; readonly name: string }[]
  band: HandBand | undefined
}>()
const frame = ref<HTMLElement>()
const { width: measured } = useElementSize(frame)
const width = computed(() => Math.max(360, Math.floor(measured.value)))

const right = computed(() => NAME_GAP_PX + LETTER_PX * (max(props.lines, (l) => l.name.length) ?? 0))
const bottomY = HEIGHT - BOTTOM
const x = computed(() => scaleLinear([1, OCTAVE_SEMITONES], [LEFT + 14, width.value - right.value - 6]))
const y = computed(() => {
  const widest = max(props.lines, (l) => max(l.widthsMm)) ?? 100
  return scaleLinear([0, Math.max(widest, props.band?.reachedMm ?? 0) * 1.06], [bottomY, TOP])
})
const band = computed(
  () =>
    props.band && {
      ...props.band,
      comfortableY: y.value(props.band.comfortableMm),
      reachedY: y.value(props.band.reachedMm),
    },
)
const path = line<{ x: number; y: number }>(
  (p) => p.x,
  (p) => p.y,
)
const labelled = computed(() =>
  keptApart(
    props.lines.map((one) => {
      const points = one.widthsMm.map((widthMm, i) => ({ x: x.value(i + 1), y: y.value(widthMm) }))
      return { ...one, points, path: path(points) ?? '', labelY: points.at(-1)?.y ?? 0 }
    }),
    LABEL_STEP,
  ),
)
</script>

<style scoped>
.comfortable {
  fill: var(--jade-wash);
}

.reached {
  fill: var(--brass-wash);
}

.band-name {
  paint-order: stroke;
  stroke: var(--card);
  stroke-width: 4px;
  stroke-linejoin: round;
  fill: var(--ink);
  font-weight: 600;
}

.line path {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 1.5;
}

.line circle {
  fill: var(--ink-soft);
}

.own path {
  stroke: var(--jade);
  stroke-width: 3;
}

.own circle {
  fill: var(--jade);
}

.name {
  fill: var(--ink);
  font-weight: 600;
}

.own .name {
  fill: var(--jade-deep);
  font-weight: 800;
}
</style>
