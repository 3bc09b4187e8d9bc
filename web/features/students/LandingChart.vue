<template>
  <ChartFrame
    caption="Landings over time, cents off the place: ▲ sharp, ▼ flat"
    :label="`Landings of ${fingers.length} fingers over ${checks.length} checks`"
    :height="190"
    :margins="MARGINS"
    :x-scale="xScale"
    :y-scale="yScale"
    :x-ticks="xTicks"
    :y-name="signedCents"
    has-zero
  >
    <template #behind="{ y, area }">
      <rect
        :x="area.left"
        :width="area.width"
        :y="y(toleranceCents)"
        :height="y(-toleranceCents) - y(toleranceCents)"
        class="band"
      />
    </template>
    <template #default="{ x, y, area }">
      <g v-for="one in seriesOf(x, y)" :key="one.finger" class="series">
        <path :d="one.path" :stroke-dasharray="DASHES[one.finger]" />
        <circle v-for="point in one.points" :key="point.x" :cx="point.x" :cy="point.y" r="3" />
        <text :x="area.right + 8" :y="one.labelY" dominant-baseline="central" class="finger">
          {{ fingerSign(one.finger) }}
        </text>
      </g>
    </template>
  </ChartFrame>
</template>

<script setup lang="ts">
import { fingerSign } from '../../words/fingers'
import { extent } from 'd3-array'
import { scaleLinear, scaleUtc, type ScaleLinear, type ScaleTime } from 'd3-scale'
import { line } from 'd3-shape'
import { computed } from 'vue'
import type { Digit } from '#core'
import type { Check } from '#contracts'
import { BESIDE_PX, besideOf } from '../../charts/beside'
import { dateTicks } from '../../charts/chart'
import ChartFrame from '../../charts/ChartFrame.vue'
import { keptApart } from '../../charts/keptApart'
import { signedCents } from '../../words/numbers'
import { landingsOf } from './landings'

const MARGINS = { top: 10, right: 28, bottom: 26, left: 44 }
const LABEL_STEP = 15
/** Fingers are told apart by number and dash, not by colour. */
const DASHES: Record<Exclude<Digit, 0>, string> = { 1: 'none', 2: '7 4', 3: '2 4', 4: '11 4 2 4', 5: '1 3' }

const props = defineProps<{ checks: readonly Check[]; toleranceCents: number }>()

const points = computed(() =>
  props.checks
    .flatMap((check) => landingsOf(check).map((landing) => ({ ...landing, at: new Date(check.takenAt) })))
    .sort((a, b) => a.at.getTime() - b.at.getTime()),
)
const fingers = computed(() => [...new Set(points.value.map((p) => p.finger))].sort())

function xScale([left, right]: [number, number]) {
  const [from = new Date(0), to = new Date(1)] = extent(points.value, (p) => p.at)
  return scaleUtc([from, to], [left + 12, right - 6])
}
function yScale(range: [number, number]) {
  const most = Math.max(props.toleranceCents * 1.4, ...points.value.map((p) => Math.abs(p.cents)))
  return scaleLinear([-most, most], range).nice(5)
}
const xTicks = (x: ScaleTime<number, number>, width: number) => dateTicks(x, width, '%-d %b', 130)

const pathOf = line<{ x: number; y: number }>(
  (p) => p.x,
  (p) => p.y,
)
function seriesOf(x: ScaleTime<number, number>, y: ScaleLinear<number, number>) {
  const drawn = fingers.value.map((finger) => {
    const own = points.value.filter((p) => p.finger === finger)
    const beside = besideOf(own)
    const placed = own.map((p, i) => ({ x: x(p.at) + beside[i]! * BESIDE_PX, y: y(p.cents) }))
    return { finger, points: placed, path: pathOf(placed) ?? '', labelY: placed.at(-1)?.y ?? 0 }
  })
  return keptApart(drawn, LABEL_STEP)
}
</script>

<style scoped>
.band {
  fill: var(--jade-wash);
}

.series path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.6;
}

.series circle {
  fill: var(--ink);
}

.series .finger {
  fill: var(--ink);
  font-weight: 700;
  font-size: 14px;
}
</style>
