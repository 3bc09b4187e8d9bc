<template>
  <figure ref="frame">
    <figcaption class="eyebrow">The life of its tapes, mm from the nut</figcaption>
    <svg
      :viewBox="`0 0 ${width} ${HEIGHT}`"
      :width="width"
      :height="HEIGHT"
      role="img"
      :aria-label="`${drawn.tapes.length} tapes and ${events.length} entries; the list below says each`"
    >
      <g v-for="tick in drawn.y.ticks(5)" :key="tick">
        <line class="grid" :x1="LEFT" :x2="width - RIGHT" :y1="drawn.y(tick)" :y2="drawn.y(tick)" />
        <text :x="LEFT - 8" :y="drawn.y(tick)" text-anchor="end" dominant-baseline="central">{{ tick }}</text>
      </g>
      <text v-for="tick in months" :key="tick.label" :x="tick.x" :y="HEIGHT - 6" text-anchor="middle">
        {{ tick.label }}
      </text>
      <g v-for="moment in drawn.moments" :key="moment.on + moment.kind" class="moment">
        <line :x1="moment.x" :x2="moment.x" :y1="TOP" :y2="HEIGHT - BOTTOM" />
        <text :x="moment.x" :y="TOP - 6" text-anchor="middle">
          {{ EVENT_NAMES[moment.kind as TapeEventKind] }}
        </text>
      </g>
      <g v-for="(tape, index) in drawn.tapes" :key="index" :class="{ past: tape.life.endedOn }">
        <path :d="tape.path" />
        <g v-for="(point, i) in tape.points" :key="i" :class="point.kind">
          <rect
            v-if="point.kind === 'crept'"
            :x="point.x - 5"
            :y="point.y - 5"
            width="10"
            height="10"
            :transform="`rotate(45 ${point.x} ${point.y})`"
          />
          <text v-if="point.kind === 'crept'" :x="point.x" :y="point.y + 19" text-anchor="middle" class="off">
            {{ point.label }}
          </text>
          <circle v-if="point.kind !== 'crept'" :cx="point.x" :cy="point.y" r="5" />
        </g>
        <g v-if="tape.life.endedOn" class="end">
          <line :x1="tape.endX" :x2="tape.endX" :y1="tape.endY - 7" :y2="tape.endY + 7" />
          <text
            v-if="tape.life.endedBy !== 'replaced'"
            :x="tape.endX + 6"
            :y="tape.endY"
            dominant-baseline="central"
          >
            {{ EVENT_NAMES[tape.life.endedBy ?? 'removed'].toLowerCase() }}
          </text>
        </g>
        <text v-else class="now" :x="width - RIGHT + 8" :y="tape.endY" dominant-baseline="central">
          {{ nameOf(tape.life.markId) }}
        </text>
      </g>
    </svg>
    <p class="soft key">● laid, checked, moved &nbsp; ◆ found crept &nbsp; ❙ came off</p>
  </figure>
</template>

<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { utcFormat } from 'd3-time-format'
import { computed, ref } from 'vue'
import { familyOf, marksWithIds, type FamilyId, type TapeEventKind } from '#core'
import type { TapeEvent } from '#contracts'
import { EVENT_NAMES, shortMarkName } from '../../words/trade'
import { timelineOf } from './timeline'

const HEIGHT = 250
const LEFT = 44
const RIGHT = 74
const TOP = 26
const BOTTOM = 28
const MONTHS_SHOWN = 8

const props = defineProps<{ events: readonly TapeEvent[]; family: FamilyId; today: string }>()
const frame = ref<HTMLElement>()
const { width: measured } = useElementSize(frame)
const width = computed(() => Math.max(320, Math.floor(measured.value)))

const drawn = computed(() =>
  timelineOf(props.events, props.today, {
    width: width.value,
    height: HEIGHT,
    left: LEFT,
    right: RIGHT,
    top: TOP,
    bottom: BOTTOM,
  }),
)
const month = utcFormat('%b %Y')
const day = utcFormat('%-d %b')
const months = computed(() => {
  const [first, last] = drawn.value.x.domain()
  const isShort = Number(last) - Number(first) < 90 * 86_400_000
  return drawn.value.x
    .ticks(Math.min(MONTHS_SHOWN, width.value / 110))
    .map((tick) => ({ x: drawn.value.x(tick), label: (isShort ? day : month)(tick) }))
})

function nameOf(markId: string): string {
  const [mark] = marksWithIds(familyOf(props.family), [markId])
  return mark ? shortMarkName(mark) : markId
}
</script>

<style scoped>
figure {
  margin: 0;
}

text {
  fill: var(--ink-soft);
  font: 500 13.5px var(--font-text);
  font-variant-numeric: tabular-nums;
}

.grid {
  stroke: var(--line);
}

path {
  fill: none;
  stroke: var(--jade);
  stroke-width: 4;
  stroke-linejoin: round;
}

.past path {
  stroke: var(--line-strong);
  stroke-width: 2.5;
}

circle {
  fill: var(--card);
  stroke: var(--jade);
  stroke-width: 2.5;
}

.past circle {
  stroke: var(--line-strong);
}

.crept rect {
  fill: var(--sharp);
}

.off {
  fill: var(--sharp);
  font-weight: 700;
}

.end line {
  stroke: var(--ink-soft);
  stroke-width: 2.5;
}

.moment line {
  stroke: var(--brass);
  stroke-dasharray: 4 4;
}

.moment text {
  fill: var(--brass-ink);
}

.now {
  fill: var(--jade);
  font-size: 17px;
  font-weight: 700;
}

.key {
  font-size: 14px;
}
</style>
