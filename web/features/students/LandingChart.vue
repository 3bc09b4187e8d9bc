<template>
  <figure ref="frame">
    <figcaption class="eyebrow">Landings over time, cents off the place</figcaption>
    <svg
      :viewBox="`0 0 ${width} ${HEIGHT}`"
      :width="width"
      :height="HEIGHT"
      role="img"
      :aria-label="`Landings of ${series.length} fingers over ${checks.length} checks`"
    >
      <rect
        :x="LEFT"
        :width="width - LEFT - RIGHT"
        :y="y(toleranceCents)"
        :height="y(-toleranceCents) - y(toleranceCents)"
        class="band"
      />
      <g v-for="tick in y.ticks(5)" :key="tick">
        <line
          :x1="LEFT"
          :x2="width - RIGHT"
          :y1="y(tick)"
          :y2="y(tick)"
          :class="tick === 0 ? 'zero' : 'grid'"
        />
        <text :x="LEFT - 8" :y="y(tick)" text-anchor="end" dominant-baseline="central">
          {{ signedCents(tick) }}
        </text>
      </g>
      <text v-for="tick in dates" :key="tick.label" :x="tick.x" :y="HEIGHT - 6" text-anchor="middle">
        {{ tick.label }}
      </text>
      <g v-for="one in series" :key="one.finger" class="series">
        <path :d="one.path" :stroke-dasharray="DASHES[one.finger]" />
        <circle v-for="point in one.points" :key="point.x" :cx="point.x" :cy="point.y" r="3" />
        <text :x="width - RIGHT + 8" :y="one.labelY" dominant-baseline="central" class="finger">
          {{ one.finger }}
        </text>
      </g>
      <text :x="LEFT + 6" :y="TOP + 15" class="side">sharp ▲</text>
      <text :x="LEFT + 6" :y="HEIGHT - BOTTOM - 6" class="side">flat ▼</text>
    </svg>
  </figure>
</template>

<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { extent } from 'd3-array'
import { scaleLinear, scaleUtc } from 'd3-scale'
import { line } from 'd3-shape'
import { utcFormat } from 'd3-time-format'
import { computed, ref } from 'vue'
import type { FamilyId, Finger } from '#core'
import type { Check } from '#contracts'
import { signedCents } from '../../words/numbers'
import { keptApart } from '../shell/keptApart'
import { landingsOf } from './landings'

const HEIGHT = 190
const TOP = 10
const BOTTOM = 26
const LEFT = 44
const RIGHT = 28
const LABEL_STEP = 15
/** Fingers are told apart by number and dash, not by colour. */
const DASHES: Record<Finger, string> = { 1: 'none', 2: '7 4', 3: '2 4', 4: '11 4 2 4' }

const props = defineProps<{ checks: readonly Check[]; family: FamilyId; toleranceCents: number }>()
const frame = ref<HTMLElement>()
const { width: measured } = useElementSize(frame)
const width = computed(() => Math.max(300, Math.floor(measured.value)))

const points = computed(() =>
  props.checks
    .flatMap((check) =>
      landingsOf(check, props.family).map((landing) => ({ ...landing, at: new Date(check.takenAt) })),
    )
    .sort((a, b) => a.at.getTime() - b.at.getTime()),
)
const x = computed(() => {
  const [from = new Date(0), to = new Date(1)] = extent(points.value, (p) => p.at)
  return scaleUtc([from, to], [LEFT + 12, width.value - RIGHT - 6])
})
const y = computed(() => {
  const most = Math.max(props.toleranceCents * 1.4, ...points.value.map((p) => Math.abs(p.cents)))
  return scaleLinear([-most, most], [HEIGHT - BOTTOM, TOP]).nice(5)
})
const dates = computed(() =>
  x.value
    .ticks(Math.max(2, Math.floor(width.value / 130)))
    .map((date) => ({ x: x.value(date), label: utcFormat('%-d %b')(date) })),
)
const series = computed(() => {
  const drawn = [...new Set(points.value.map((p) => p.finger))].sort().map((finger) => {
    const own = points.value
      .filter((p) => p.finger === finger)
      .map((p) => ({ x: x.value(p.at), y: y.value(p.cents) }))
    const path =
      line<{ x: number; y: number }>(
        (p) => p.x,
        (p) => p.y,
      )(own) ?? ''
    return { finger, points: own, path, labelY: own.at(-1)?.y ?? 0 }
  })
  return keptApart(drawn, LABEL_STEP)
})
</script>

<style scoped>
figure {
  margin: 0;
}

svg {
  display: block;
  max-width: 100%;
}

text {
  fill: var(--ink-soft);
  font: 500 13px var(--font-text);
  font-variant-numeric: tabular-nums;
}

.band {
  fill: var(--jade-wash);
}

.grid {
  stroke: var(--line);
}

.zero {
  stroke: var(--jade);
  stroke-width: 1.5;
}

.series path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.6;
}

.series circle {
  fill: var(--ink);
}

.finger {
  fill: var(--ink);
  font-weight: 700;
  font-size: 14px;
}
</style>
