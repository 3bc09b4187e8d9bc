<template>
  <ChartFrame
    :caption="`The life of its tapes, ${unitName()} from the nut`"
    is-length
    :label="`${count(lives.length, 'tape')}, ${count(events.length, 'note')} in its log; the list below says each`"
    :height="250"
    :margins="MARGINS"
    :x-scale="scales.x"
    :y-scale="scales.y"
    :x-ticks="xTicks"
  >
    <template #default="{ x, y, area }">
      <template v-for="drawn in [timelineOf(events, today, x, y)]" :key="drawn.tapes.length">
        <g v-for="moment in drawn.moments" :key="moment.on + moment.kind" class="moment">
          <line :x1="moment.x" :x2="moment.x" :y1="area.top" :y2="area.bottom" />
          <text :x="moment.x" :y="area.top - 6" :text-anchor="anchorWithin(moment.x, 20, area.right + 70)">
            {{ EVENT_NAMES[moment.kind as TapeEventKind] }}
          </text>
        </g>
        <g v-for="(tape, index) in drawn.tapes" :key="index" :class="['tape', { past: tape.life.endedOn }]">
          <path :d="tape.path" />
          <g v-for="(point, i) in tape.points" :key="i" :class="point.kind">
            <template v-if="point.kind === 'crept'">
              <rect
                :x="point.x - 5"
                :y="point.y - 5"
                width="10"
                height="10"
                :transform="`rotate(45 ${point.x} ${point.y})`"
              />
              <text :x="point.x" :y="point.y + 19" text-anchor="middle" class="off">{{ point.label }}</text>
            </template>
            <circle v-else :cx="point.x" :cy="point.y" r="5" />
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
          <text v-else class="now" :x="area.right + 8" :y="tape.endY" dominant-baseline="central">
            {{ nameOf(tape.life.markId) }}
          </text>
        </g>
      </template>
    </template>
    <template #key>
      <p class="soft key">● laid, checked, moved &nbsp; ◆ found crept &nbsp; ❙ came off</p>
    </template>
  </ChartFrame>
</template>

<script setup lang="ts">
import type { ScaleTime } from 'd3-scale'
import { computed } from 'vue'
import { daysBetween, familyOf, marksWithIds, tapeLives, type FamilyId, type TapeEventKind } from '#core'
import type { TapeEvent } from '#contracts'
import { anchorWithin, dateTicks } from '../../charts/chart'
import ChartFrame from '../../charts/ChartFrame.vue'
import { count, unitName } from '../../words/numbers'
import { EVENT_NAMES, shortMarkName } from '../../words/trade'
import { timelineOf, timelineScales } from './timeline'

const MARGINS = { top: 26, right: 74, bottom: 28, left: 44 }
/** Within a season days are told, over a longer time months. */
const SHORT_DAYS = 90

const props = defineProps<{ events: readonly TapeEvent[]; family: FamilyId; today: string }>()
const lives = computed(() => tapeLives(props.events))
const scales = computed(() => timelineScales(props.events, props.today))

function xTicks(x: ScaleTime<number, number>, width: number) {
  const first = props.events.reduce((a, { on }) => (on < a ? on : a), props.today)
  const isShort = daysBetween(first, props.today) < SHORT_DAYS
  return dateTicks(x, width, isShort ? '%-d %b' : '%b %Y', 110)
}

function nameOf(markId: string): string {
  const [mark] = marksWithIds(familyOf(props.family), [markId])
  return mark ? shortMarkName(mark) : markId
}
</script>

<style scoped>
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
