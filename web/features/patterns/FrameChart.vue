<template>
  <ChartFrame
    :caption="`Width of the frame along the neck, ${unitName()}`"
    is-length
    :label="`Width of the frame from half position to the octave, ${lines.length} lines`"
    :height="330"
    :margins="margins"
    :x-scale="xScale"
    :y-scale="yScale"
    :x-ticks="xTicks"
    :y-ticks="6"
  >
    <template v-if="band" #behind="{ y, area }">
      <rect
        :x="area.left"
        :width="area.width"
        :y="y(band.comfortableMm)"
        :height="area.bottom - y(band.comfortableMm)"
        class="comfortable"
      />
      <rect
        :x="area.left"
        :width="area.width"
        :y="y(band.reachedMm)"
        :height="y(band.comfortableMm) - y(band.reachedMm)"
        class="reached"
      />
    </template>
    <template #default="{ x, y, area }">
      <g v-for="one in drawn(x, y)" :key="one.id" :class="['line', { own: one.isOwn }]">
        <path :d="one.path" :stroke-dasharray="one.dash" />
        <circle v-for="point in one.points" :key="point.x" :cx="point.x" :cy="point.y" r="2.6" />
        <text :x="area.right + 8" :y="one.labelY" dominant-baseline="central" class="name">
          {{ one.name }}
        </text>
      </g>
      <template v-if="band">
        <text :x="area.right - 8" :y="y(band.comfortableMm) + 16" text-anchor="end" class="band-name">
          comfortable, {{ length(band.comfortableMm) }}
        </text>
        <text :x="area.right - 8" :y="y(band.reachedMm) - 6" text-anchor="end" class="band-name">
          {{
            band.isReachMeasured
              ? `reached, ${length(band.reachedMm)}`
              : `reach about ${length(band.reachedMm)}, from memory`
          }}
        </text>
      </template>
    </template>
  </ChartFrame>
</template>

<script setup lang="ts">
import { max } from 'd3-array'
import { scaleLinear, type ScaleLinear } from 'd3-scale'
import { line } from 'd3-shape'
import { computed } from 'vue'
import { OCTAVE_SEMITONES } from '#core'
import ChartFrame from '../../charts/ChartFrame.vue'
import { keptApart } from '../../charts/keptApart'
import { length, unitName } from '../../words/numbers'
import type { FrameLine, HandBand } from './frame-lines'

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

const margins = computed(() => ({
  top: 14,
  right: NAME_GAP_PX + LETTER_PX * (max(props.lines, (l) => l.name.length) ?? 0),
  bottom: 30,
  left: 44,
}))
function xScale([left, right]: [number, number]) {
  return scaleLinear([1, OCTAVE_SEMITONES], [left + 14, right - 6])
}
function yScale(range: [number, number]) {
  const widest = max(props.lines, (l) => max(l.widthsMm)) ?? 100
  return scaleLinear([0, Math.max(widest, props.band?.reachedMm ?? 0) * 1.06], range)
}
const xTicks = (x: ScaleLinear<number, number>) =>
  props.places.map(({ semitones, name }) => ({ at: x(semitones), label: name }))

const pathOf = line<{ x: number; y: number }>(
  (p) => p.x,
  (p) => p.y,
)
function drawn(x: ScaleLinear<number, number>, y: ScaleLinear<number, number>) {
  return keptApart(
    props.lines.map((one) => {
      const points = one.widthsMm.map((widthMm, i) => ({ x: x(i + 1), y: y(widthMm) }))
      return { ...one, points, path: pathOf(points) ?? '', labelY: points.at(-1)?.y ?? 0 }
    }),
    LABEL_STEP,
  )
}
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

.line .name {
  fill: var(--ink);
  font-weight: 600;
}

.own .name {
  fill: var(--jade-deep);
  font-weight: 800;
}
</style>
