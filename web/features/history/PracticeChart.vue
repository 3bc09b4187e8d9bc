<template>
  <figure ref="frame" class="chart">
    <figcaption>
      <span class="eyebrow">Practice, minutes a week</span> <span class="soft">{{ said }}</span>
    </figcaption>
    <svg :viewBox="`0 0 ${width} ${HEIGHT}`" :width="width" :height="HEIGHT" role="img" :aria-label="label">
      <text :x="MARGINS.left - 6" :y="y(most)" text-anchor="end" dominant-baseline="central">{{ most }}</text>
      <line :x1="MARGINS.left" :x2="width - MARGINS.right" :y1="y(0)" :y2="y(0)" class="floor" />
      <rect
        v-for="week in shown"
        :key="week.from.getTime()"
        :x="x(week.from)"
        :width="barWidth"
        :y="y(week.minutes)"
        :height="y(0) - y(week.minutes)"
      >
        <title>
          {{
            `${shortDay(week.from.toISOString())}: ${count(week.minutes, 'minute')} on ${count(week.days, 'day')}`
          }}
        </title>
      </rect>
    </svg>
  </figure>
</template>

<script setup lang="ts">
import { max } from 'd3-array'
import { scaleLinear, scaleUtc } from 'd3-scale'
import { computed, ref } from 'vue'
import { useWidth } from '../../ui/useWidth'
import { shortDay } from '../../words/dates'
import { count } from '../../words/numbers'
import type { PracticeWeek } from './practice'

/** Minutes of practice a week, on the time of the checks. */
const props = defineProps<{ weeks: readonly PracticeWeek[]; time: readonly [Date, Date] }>()
const HEIGHT = 66
const MARGINS = { left: 44, right: 10, top: 8, bottom: 4 }
const WEEK_MS = 7 * 86_400_000

const frame = ref<HTMLElement>()
const measured = useWidth(frame)
const width = computed(() => Math.max(300, Math.floor(measured.value)))
const x = computed(() => scaleUtc([...props.time], [MARGINS.left, width.value - MARGINS.right]))
const shown = computed(() => props.weeks.filter(({ from }) => from >= props.time[0] && from < props.time[1]))
const most = computed(() => max(shown.value, ({ minutes }) => minutes) ?? 0)
const y = computed(() => scaleLinear([0, Math.max(1, most.value)], [HEIGHT - MARGINS.bottom, MARGINS.top]))
const barWidth = computed(() => {
  const [first, last] = props.time
  const room = width.value - MARGINS.left - MARGINS.right
  return Math.max(2, (room * WEEK_MS) / Math.max(WEEK_MS, last.getTime() - first.getTime()) - 2)
})
const said = computed(() => (shown.value.length === 0 ? 'nothing is written down' : ''))
const label = computed(() =>
  shown.value.map(({ from, minutes }) => `${shortDay(from.toISOString())}: ${minutes}`).join('; '),
)
</script>

<style scoped>
rect {
  fill: var(--brass);
}

.floor {
  stroke: var(--line-strong);
}
</style>
