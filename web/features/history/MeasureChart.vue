<template>
  <div class="measure" @click="choose">
    <ChartFrame
      :caption="caption"
      :label="`${caption}: ${count(series.points.length, 'check')}. ${sentence}`"
      :height="hasDates ? HEIGHT + DATES_PX : HEIGHT"
      :margins="hasDates ? { ...MARGINS, bottom: MARGINS.bottom + DATES_PX } : MARGINS"
      :x-scale="xScale"
      :y-scale="yScale"
      :x-ticks="xTicks"
      :y-ticks="4"
      :y-name="yName"
      has-zero
      :is-length="words.unit === 'mm'"
    >
      <template #behind="{ y, area }">
        <rect
          v-if="toleranceAt !== undefined"
          :x="area.left"
          :width="area.width"
          :y="y(toleranceAt)"
          :height="y(toleranceTo) - y(toleranceAt)"
          class="band"
        />
      </template>
      <template #default="{ x, y, area }">
        <line
          v-for="mark in marksOf(x)"
          :key="mark.name"
          :x1="mark.at"
          :x2="mark.at"
          :y1="area.top"
          :y2="area.bottom"
          :class="['chosen', mark.name]"
        />
        <path :d="dotsOf(x, y)" :class="['dots', { many: series.points.length > MANY }]" />
        <line
          v-if="trendLine"
          class="trend"
          :x1="x(trendLine.from)"
          :x2="x(trendLine.to)"
          :y1="y(trendLine.fromValue)"
          :y2="y(trendLine.toValue)"
        />
      </template>
    </ChartFrame>
    <p v-if="sentence" class="trend-words soft">{{ sentence }}</p>
  </div>
</template>

<script setup lang="ts">
import { extent, minIndex } from 'd3-array'
import { scaleLinear, scaleUtc, type ScaleLinear, type ScaleTime } from 'd3-scale'
import { computed } from 'vue'
import { BESIDE_PX, besideOf } from '../../charts/beside'
import { dateTicks } from '../../charts/chart'
import ChartFrame from '../../charts/ChartFrame.vue'
import { count } from '../../words/numbers'
import { MEASURE_WORDS, measureCaption, trendSentence } from '../../words/history'
import { trendOn, type Series } from './series'

/** More points than these are drawn finer. */
const MANY = 150
const HEIGHT = 104
const MARGINS = { top: 6, right: 10, bottom: 6, left: 44 }
/** The last one says the dates of all. */
const DATES_PX = 18

const props = defineProps<{
  series: Series
  time: readonly [Date, Date]
  hasDates: boolean
  toleranceCents: number
  /** Checks that are held against each other: the earlier and the later. */
  chosen: readonly [string | undefined, string | undefined]
  /** What is to be said of all charts is said once, beside them. */
  isQuiet: boolean
}>()
const emit = defineEmits<{ choose: [checkId: string] }>()

const words = computed(() => MEASURE_WORDS[props.series.measure])
const caption = computed(() => measureCaption(words.value))
const sentence = computed(() => (props.isQuiet ? '' : trendSentence(props.series.trend, words.value)))
const isSigned = computed(() => props.series.measure !== 'scatter')
const toleranceAt = computed(() => (words.value.unit === 'cents' ? props.toleranceCents : undefined))
const toleranceTo = computed(() => (isSigned.value ? -props.toleranceCents : 0))

const xScale = (range: [number, number]) => scaleUtc([...props.time], range)
function yScale(range: [number, number]) {
  const { fromValue = 0, toValue = 0 } = trendLine.value ?? {}
  const [low = 0, high = 0] = extent([...props.series.points.map(({ value }) => value), fromValue, toValue])
  const most = Math.max(Math.abs(low), Math.abs(high), (toleranceAt.value ?? 2) * 1.15)
  return scaleLinear([isSigned.value ? -most : 0, most], range).nice(4)
}
const yName = (value: number) => (value > 0 && isSigned.value ? `+${value}` : String(value).replace('-', '−'))
const isLong = computed(() => props.time[1].getTime() - props.time[0].getTime() > 300 * 86_400_000)
const xTicks = (x: ScaleTime<number, number>, width: number) =>
  props.hasDates ? dateTicks(x, width, isLong.value ? '%b %Y' : '%-d %b', 120) : []

type X = ScaleTime<number, number>
/** One path: a thousand circles would each be an element. */
function dotsOf(x: X, y: ScaleLinear<number, number>): string {
  return props.series.points
    .map(({ value }, i) => `M${pointAt(x, i).toFixed(1)},${y(value).toFixed(1)}h0`)
    .join('')
}
const beside = computed(() => besideOf(props.series.points))
function pointAt(x: X, index: number): number {
  return x(props.series.points[index]!.at) + beside.value[index]! * BESIDE_PX
}
function marksOf(x: X) {
  return (['earlier', 'later'] as const).flatMap((name, i) => {
    const index = props.series.points.findIndex(({ checkId }) => checkId === props.chosen[i])
    return index < 0 ? [] : [{ name, at: pointAt(x, index) }]
  })
}
const trendLine = computed(() => {
  const { points, trend } = props.series
  const [from, to] = [points[0]?.at, points.at(-1)?.at]
  if (trend.outcome !== 'line' || !from || !to) return undefined
  // A line that may as well go the other way is none.
  if (trend.interval[0] <= 0 && trend.interval[1] >= 0) return undefined
  return { from, to, fromValue: trendOn(trend, from), toValue: trendOn(trend, to) }
})

/** The check that lies nearest to the pointer. */
function choose(event: MouseEvent) {
  const svg = (event.currentTarget as HTMLElement).querySelector('svg')
  if (!svg) return
  const box = svg.getBoundingClientRect()
  const x = xScale([MARGINS.left, box.width - MARGINS.right])
  const away = props.series.points.map((_, i) => Math.abs(pointAt(x, i) - (event.clientX - box.left)))
  const point = props.series.points[minIndex(away)]
  if (point) emit('choose', point.checkId)
}
</script>

<style scoped>
.measure {
  position: relative;
  container-type: inline-size;
  cursor: pointer;
}

.trend-words {
  position: absolute;
  top: 0;
  right: 10px;
  margin: 0;
  font-size: 14px;
}

.band {
  fill: var(--jade-wash);
}

.dots {
  fill: none;
  stroke: var(--ink);
  stroke-width: 6;
  stroke-linecap: round;
}

.dots.many {
  stroke-width: 3.5;
}

.trend {
  stroke: var(--brass-ink);
  stroke-width: 2.5;
  stroke-dasharray: 8 4;
}

.chosen {
  stroke: var(--brass);
  stroke-width: 2;
}

.chosen.earlier {
  stroke-dasharray: 3 4;
}

/* Where both do not fit into one line. */
@container (width <= 430px) {
  .trend-words {
    position: static;
  }
}
</style>
