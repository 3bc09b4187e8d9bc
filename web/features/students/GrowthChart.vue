<template>
  <figure ref="frame" class="chart">
    <figcaption class="eyebrow">Span from 1 to 4 over time, mm</figcaption>
    <svg
      :viewBox="`0 0 ${width} ${HEIGHT}`"
      :width="width"
      :height="HEIGHT"
      role="img"
      :aria-label="`${count(points.length, 'measurement')} of the span`"
    >
      <g v-for="tick in y.ticks(5)" :key="tick">
        <line :x1="LEFT" :x2="width - RIGHT" :y1="y(tick)" :y2="y(tick)" class="grid" />
        <text :x="LEFT - 8" :y="y(tick)" text-anchor="end" dominant-baseline="central">{{ tick }}</text>
      </g>
      <text v-for="tick in dates" :key="tick.label" :x="tick.x" :y="HEIGHT - 6" text-anchor="middle">
        {{ tick.label }}
      </text>
      <g v-if="wantedMm !== undefined" class="wanted">
        <line :x1="LEFT" :x2="width - RIGHT" :y1="y(wantedMm)" :y2="y(wantedMm)" />
        <text :x="LEFT + 6" :y="y(wantedMm) - 6">{{ wantedName }}</text>
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
    </svg>
    <p class="soft key">
      ● comfortable &ensp; + reached &ensp; the line is the middle one of all pairs (Theil and Sen).
    </p>
  </figure>
</template>

<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { extent } from 'd3-array'
import { scaleLinear, scaleUtc } from 'd3-scale'
import { utcFormat } from 'd3-time-format'
import { computed, ref } from 'vue'
import type { Growth } from '#core'
import type { HandMeasurement } from '#contracts'
import { count } from '../../words/numbers'
import { dayNumber } from './useHandFile'

const HEIGHT = 230
const TOP = 16
const BOTTOM = 26
const LEFT = 40
const RIGHT = 14
/** Room around the smallest and the largest span, mm. */
const MARGIN_MM = 3

const props = defineProps<{
  history: readonly HandMeasurement[]
  growth: Growth
  /** The span that the next size asks for. */
  wantedMm: number | undefined
  wantedName: string
}>()
const frame = ref<HTMLElement>()
const { width: measured } = useElementSize(frame)
const width = computed(() => Math.max(300, Math.floor(measured.value)))

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
const x = computed(() => scaleUtc(ends.value, [LEFT + 14, width.value - RIGHT - 10]))
const y = computed(() => {
  const [least = 0, most = 1] = extent([
    ...points.value.map((p) => p.spanMm),
    ...reached.value.map((p) => p.spanMm),
    ...(props.wantedMm === undefined ? [] : [props.wantedMm]),
  ])
  return scaleLinear([least - MARGIN_MM, most + MARGIN_MM], [HEIGHT - BOTTOM, TOP])
})
const dates = computed(() =>
  points.value.length < 2
    ? points.value.map((p) => ({ x: x.value(p.at), label: utcFormat('%b %Y')(p.at) }))
    : x.value
        .ticks(Math.max(2, Math.floor(width.value / 110)))
        .map((date) => ({ x: x.value(date), label: utcFormat('%b %Y')(date) })),
)
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
