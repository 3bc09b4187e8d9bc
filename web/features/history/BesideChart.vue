<template>
  <figure ref="frame" class="chart lanes">
    <svg :viewBox="`0 0 ${width} ${height}`" :width="width" :height="height" role="img" :aria-label="label">
      <template v-for="lane in lanes" :key="lane.name">
        <text :x="MARGINS.left" :y="lane.top + 11" class="lane">{{ lane.name }}</text>
        <g v-for="span in lane.spans" :key="span.id">
          <title>{{ span.title }}</title>
          <rect :x="span.x" :width="span.width" :y="span.y" :height="BAR_PX" rx="3" :class="lane.kind" />
          <text
            v-for="(line, index) in span.lines"
            :key="index"
            :x="span.textX"
            :y="span.textY + index * LINE_PX"
            dominant-baseline="central"
            class="in"
          >
            {{ line }}
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
const LINE_PX = 17

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
    let bottom = top + HEAD_PX
    const rows: { end: number; y: number }[] = []
    const spans = props.spans[kind]
      .filter(({ to }) => to >= props.time[0])
      .map((span) => {
        const [from, to] = [x.value(span.from), x.value(span.to)]
        // A name that its bar has no room for stands under it, in as many lines as it needs: none is cut.
        const isInside = span.name.length * LETTER_PX <= to - from - 10
        const lines = isInside ? [span.name] : linesOf(span.name, width.value - MARGINS.left - MARGINS.right)
        const textWidth = Math.max(...lines.map((line) => line.length)) * LETTER_PX
        const textX = isInside
          ? from + 6
          : Math.max(MARGINS.left, Math.min(from, width.value - MARGINS.right - textWidth))
        const free = isInside ? rows.find(({ end }) => end <= from) : undefined
        const row = free ?? { end: 0, y: bottom }
        if (!free) bottom += ROW_PX + (isInside ? 0 : lines.length * LINE_PX)
        if (!free) rows.push(row)
        // What stands under its bar has its row to itself.
        row.end = isInside ? to + 2 : Infinity
        return {
          id: span.id,
          x: from,
          width: Math.max(3, to - from - 2),
          y: row.y,
          title: `${span.name}, from ${shortDay(span.from.toISOString())} to ${shortDay(span.to.toISOString())}`,
          lines,
          textX,
          textY: isInside ? row.y + BAR_PX / 2 : row.y + BAR_PX + LINE_PX / 2,
        }
      })
    const lane = { kind, name, top, spans }
    if (spans.length > 0) top = bottom + 4
    return { ...lane, bottom }
  }).filter(({ spans }) => spans.length > 0)
})
/** Words in lines of a width. */
function linesOf(text: string, widthPx: number): string[] {
  const lines = ['']
  for (const word of text.split(' ')) {
    const longer = `${lines.at(-1)!} ${word}`.trim()
    if (longer.length * LETTER_PX <= widthPx) lines[lines.length - 1] = longer
    else lines.push(word)
  }
  return lines.filter((line) => line !== '')
}
const height = computed(() => lanes.value.reduce((most, { bottom }) => Math.max(most, bottom), 10))
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
