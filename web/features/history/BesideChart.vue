<template>
  <figure ref="frame" class="chart lanes">
    <svg :viewBox="`0 0 ${width} ${height}`" :width="width" :height="height" role="img" :aria-label="label">
      <template v-for="lane in lanes" :key="lane.name">
        <text :x="MARGINS.left" :y="lane.top + 11" class="lane">{{ lane.name }}</text>
        <g v-for="span in lane.spans" :key="span.id">
          <title>{{ span.title }}</title>
          <rect :x="span.x" :width="span.width" :y="span.y" :height="BAR_PX" rx="3" :class="lane.kind" />
          <text
            v-if="span.text"
            :x="span.x + 6"
            :y="span.y + BAR_PX / 2"
            dominant-baseline="central"
            class="in"
          >
            {{ span.text }}
          </text>
        </g>
      </template>
    </svg>
  </figure>
</template>

<script setup lang="ts">
import { scaleUtc } from 'd3-scale'
import { computed, ref } from 'vue'
import { useWidth } from '../../ui/useWidth'
import { shortDay } from '../../words/dates'
import type { Span } from './series'

/** What was beside the checks, on their time: instruments, tapes, what was worked on. */
const props = defineProps<{
  spans: {
    readonly instruments: readonly Span[]
    readonly tapes: readonly Span[]
    readonly works: readonly Span[]
  }
  time: readonly [Date, Date]
}>()

const MARGINS = { left: 44, right: 10 }
const BAR_PX = 19
const ROW_PX = 22
const HEAD_PX = 17
/** About as broad as a letter. */
const LETTER_PX = 7

const frame = ref<HTMLElement>()
const measured = useWidth(frame)
const width = computed(() => Math.max(300, Math.floor(measured.value)))
const x = computed(() => scaleUtc([...props.time], [MARGINS.left, width.value - MARGINS.right]).clamp(true))

const LANES = [
  { kind: 'works', name: 'worked on' },
  { kind: 'instruments', name: 'instrument' },
  { kind: 'tapes', name: 'tapes' },
] as const
const lanes = computed(() => {
  let top = 0
  return LANES.map(({ kind, name }) => {
    const rows: number[] = []
    const spans = props.spans[kind]
      .filter(({ to }) => to >= props.time[0])
      .map((span) => {
        const [from, to] = [x.value(span.from), x.value(span.to)]
        const free = rows.findIndex((end) => end <= from)
        const row = free < 0 ? rows.length : free
        rows[row] = to + 2
        const room = Math.floor((to - from - 10) / LETTER_PX)
        return {
          id: span.id,
          x: from,
          width: Math.max(3, to - from - 2),
          y: top + HEAD_PX + row * ROW_PX,
          title: `${span.name}, from ${shortDay(span.from.toISOString())} to ${shortDay(span.to.toISOString())}`,
          text: room >= span.name.length ? span.name : room > 5 ? `${span.name.slice(0, room - 1)}…` : '',
        }
      })
    const lane = { kind, name, top, spans }
    if (spans.length > 0) top += HEAD_PX + rows.length * ROW_PX + 4
    return lane
  }).filter(({ spans }) => spans.length > 0)
})
const height = computed(() =>
  lanes.value.reduce((most, { spans }) => Math.max(most, ...spans.map(({ y }) => y + ROW_PX)), 10),
)
const label = computed(() =>
  lanes.value.map(({ name, spans }) => `${name}: ${spans.map(({ title }) => title).join('; ')}`).join('. '),
)
</script>

<style scoped>
.lane {
  font-size: 12.5px;
}

rect {
  fill: var(--jade-wash);
  stroke: var(--jade);
}

rect.works {
  fill: var(--brass-wash);
  stroke: var(--brass);
}

rect.tapes {
  fill: transparent;
  stroke: var(--line-strong);
}

.chart svg text.in {
  fill: var(--ink);
}
</style>
