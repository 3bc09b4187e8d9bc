<template>
  <figure ref="frame" class="chart">
    <figcaption class="eyebrow">{{ caption }}</figcaption>
    <svg :viewBox="`0 0 ${width} ${height}`" :width="width" :height="height" role="img" :aria-label="label">
      <slot name="behind" :x="x" :y="y" :area="area" />
      <g v-for="tick in ruled" :key="tick.value">
        <line
          :x1="area.left"
          :x2="area.right"
          :y1="tick.at"
          :y2="tick.at"
          :class="tick.value === 0 && hasZero ? 'zero' : 'grid'"
        />
        <text :x="area.left - 8" :y="tick.at" text-anchor="end" dominant-baseline="central">
          {{ yName(tick.value) }}
        </text>
      </g>
      <text
        v-for="tick in xTicks(x, width)"
        :key="tick.at"
        :x="tick.at"
        :y="height - 6"
        :text-anchor="anchorWithin(tick.at, 0, width)"
      >
        {{ tick.label }}
      </text>
      <slot :x="x" :y="y" :area="area" />
    </svg>
    <slot name="key" />
  </figure>
</template>

<script setup lang="ts" generic="X">
import { ticks } from 'd3-array'
import type { ScaleLinear } from 'd3-scale'
import { computed, ref } from 'vue'
import { useWidth } from '../ui/useWidth'
import { toUnit } from '../words/numbers'
import { anchorWithin, type ChartArea, type ChartMargins, type ChartTick } from './chart'

/** As wide as its place on the page, at least so much. */
const LEAST_WIDTH_PX = 300

/**
 * What every chart has: a caption, ruled lines with their values, what is written underneath. The chart itself is drawn by
 * whoever uses it, with the scales that the slots hand out.
 */
const {
  margins,
  height,
  xScale,
  yScale,
  yTicks = 5,
  yName = String,
  hasZero = false,
  isLength = false,
} = defineProps<{
  caption: string
  /** What it shows, for who does not see it. */
  label: string
  height: number
  margins: ChartMargins
  /** Makes a scale for a range in px, from left to right. */
  xScale: (range: [number, number]) => X
  /** The same from bottom to top. */
  yScale: (range: [number, number]) => ScaleLinear<number, number>
  xTicks: (x: X, width: number) => readonly ChartTick[]
  /** About how many ruled lines. */
  yTicks?: number
  yName?: (value: number) => string
  /** Whether nought is a line of its own. */
  hasZero?: boolean
  /** Whether the values are mm, ruled and named in the studio’s unit. */
  isLength?: boolean
}>()

const frame = ref<HTMLElement>()
const measured = useWidth(frame)
const width = computed(() => Math.max(LEAST_WIDTH_PX, Math.floor(measured.value)))
const area = computed<ChartArea>(() => ({
  top: margins.top,
  left: margins.left,
  right: width.value - margins.right,
  bottom: height - margins.bottom,
  width: width.value - margins.left - margins.right,
  height: height - margins.top - margins.bottom,
}))
const x = computed(() => xScale([area.value.left, area.value.right]))
const y = computed(() => yScale([area.value.bottom, area.value.top]))
/** Round values of what is written, and where they lie. */
const ruled = computed(() => {
  const perUnit = isLength ? 1 / toUnit(1) : 1
  const [low = 0, high = 1] = y.value.domain()
  return ticks(low / perUnit, high / perUnit, yTicks).map((value) => ({
    value,
    at: y.value(value * perUnit),
  }))
})
</script>

<style>
.chart {
  margin: 0;
}

.chart svg {
  display: block;
  max-width: 100%;
}

.chart svg text {
  fill: var(--ink-soft);
  font: 500 13px var(--font-text);
  font-variant-numeric: tabular-nums;
}

.chart .grid {
  stroke: var(--line);
}

.chart .zero {
  stroke: var(--jade);
  stroke-width: 1.5;
}
</style>
