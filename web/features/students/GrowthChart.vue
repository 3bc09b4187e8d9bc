<template>
  <ChartFrame
    :caption="`Span from 1 to 4 over time, ${unitName()}`"
    is-length
    :label="`${count(points.length, 'measurement')} of the span`"
    :height="230"
    :margins="MARGINS"
    :x-scale="xScale"
    :y-scale="yScale"
    :x-ticks="xTicks"
  >
    <template #default="{ x, y, area }">
      <g v-if="wantedMm !== undefined" class="wanted">
        <line :x1="area.left" :x2="area.right" :y1="y(wantedMm)" :y2="y(wantedMm)" />
        <text :x="area.left + 6" :y="y(wantedMm) - 6">{{ wantedName }}</text>
      </g>
      <line
        v-if="growth.outcome === 'line'"
        class="trend"
        :x1="x(from)"
        :x2="x(to)"
        :y1="y(growth.spanOn(dayNumber(isoOf(from))))"
        :y2="y(growth.spanOn(dayNumber(isoOf(to))))"
      />
      <circle
        v-for="point in points"
        :key="point.id"
        :cx="x(point.at)"
        :cy="y(point.spanMm)"
        r="4.5"
        class="span"
      />
      <path
        v-for="point in reached"
        :key="`r${point.id}`"
        :d="cross(x(point.at), y(point.spanMm))"
        class="reach"
      />
    </template>
    <template #key>
      <p class="soft key">● comfortable &ensp; + reached &ensp; the line is that of least squares.</p>
    </template>
  </ChartFrame>
</template>

<script setup lang="ts">
import { extent } from 'd3-array'
import { scaleLinear, scaleUtc, type ScaleTime } from 'd3-scale'
import { utcFormat } from 'd3-time-format'
import { computed } from 'vue'
import { dayNumber, type Growth } from '#core'
import type { HandMeasurement } from '#contracts'
import { dateTicks, type ChartTick } from '../../charts/chart'
import ChartFrame from '../../charts/ChartFrame.vue'
import { count, unitName } from '../../words/numbers'

const MARGINS = { top: 16, right: 14, bottom: 26, left: 40 }
/** Room around the smallest and the largest span, mm. */
const MARGIN_MM = 3

const props = defineProps<{
  history: readonly HandMeasurement[]
  growth: Growth
  /** The span that the next size asks for. */
  wantedMm: number | undefined
  wantedName: string
}>()

const atOf = (iso: string) => new Date(`${iso}T00:00:00Z`)
const isoOf = (at: Date) => at.toISOString().slice(0, 10)
const points = computed(() =>
  props.history.map((h) => ({ id: h.id, at: atOf(h.measuredOn), spanMm: h.comfortableSpanMm })),
)
const reached = computed(() =>
  props.history.flatMap((h) =>
    h.reachedSpanMm === null ? [] : [{ id: h.id, at: atOf(h.measuredOn), spanMm: h.reachedSpanMm }],
  ),
)
const ends = computed(() => {
  const [first = new Date(0), last = new Date(1)] = extent(points.value, (p) => p.at)
  return [first, last] as const
})
const from = computed(() => ends.value[0])
const to = computed(() => ends.value[1])

function xScale([left, right]: [number, number]) {
  return scaleUtc(ends.value, [left + 14, right - 10])
}
function yScale(range: [number, number]) {
  const [least = 0, most = 1] = extent([
    ...points.value.map((p) => p.spanMm),
    ...reached.value.map((p) => p.spanMm),
    ...(props.wantedMm === undefined ? [] : [props.wantedMm]),
  ])
  return scaleLinear([least - MARGIN_MM, most + MARGIN_MM], range)
}
function xTicks(x: ScaleTime<number, number>, width: number): ChartTick[] {
  if (points.value.length > 1) return dateTicks(x, width, '%b %Y', 110)
  return points.value.map((p) => ({ at: x(p.at), label: utcFormat('%b %Y')(p.at) }))
}
function cross(cx: number, cy: number): string {
  return `M${cx - 4} ${cy}h8M${cx} ${cy - 4}v8`
}
</script>

<style scoped>
.wanted line {
  stroke: var(--brass);
  stroke-width: 1.5;
  stroke-dasharray: 6 4;
}

.wanted text {
  fill: var(--brass-ink);
  font-weight: 600;
}

.trend {
  stroke: var(--jade);
  stroke-width: 2;
}

.span {
  fill: var(--jade);
}

.reach {
  stroke: var(--ink-soft);
  stroke-width: 1.75;
}

.key {
  font-size: 13.5px;
}
</style>
