<template>
  <g>
    <g v-for="finger in drawn" :key="finger.id" :class="finger.kind">
      <line
        v-if="hasLabels && !finger.isPale"
        :x1="finger.x"
        :x2="finger.x"
        :y1="finger.labelEnd"
        :y2="finger.y"
        class="lead"
      />
      <ellipse :cx="finger.x" :cy="finger.y" :rx="finger.rx" :ry="finger.ry" class="tip" />
    </g>
    <ellipse
      v-for="overlap in overlaps"
      :key="overlap.x"
      :cx="overlap.x"
      :cy="overlap.y"
      :rx="overlap.rx"
      :ry="overlap.ry"
      class="overlap"
    />
    <g v-for="finger in drawn" :key="`n${finger.id}`" :class="finger.kind">
      <text :x="finger.x" :y="finger.y" class="number" text-anchor="middle" dominant-baseline="central">
        {{ fingerSign(finger.finger) }}
      </text>
      <text
        v-if="hasLabels && !finger.isPale"
        :x="finger.x"
        :y="finger.labelY"
        text-anchor="middle"
        dominant-baseline="central"
        class="place"
      >
        <tspan class="note">{{ finger.note }}</tspan> {{ inUnit(finger.placeMm) }}
      </text>
    </g>
  </g>
</template>

<script setup lang="ts">
import { fingerSign } from '../words/fingers'
import { computed } from 'vue'
import { inUnit } from '../words/numbers'
import type { BoardFinger, BoardScale } from './board'

/** Room for `F♯ 123.4`, along the board and, upright, from one line of text to the next. */
const LABEL_PX = 84
const LABEL_LINE_PX = 22
/** Rows of labels where places lie close, and how far the first is from the board. */
const ROW_PX = 20
const LEAD_PX = 12
const UPRIGHT_LEAD_PX = 48
/** A fingertip with a number in it. */
const SMALLEST_TIP_PX = 10

const props = defineProps<{
  scale: BoardScale
  fingers: readonly BoardFinger[]
  isUpright: boolean
  hasLabels: boolean
}>()

const drawn = computed(() => {
  const { along, stringY, pxPerMm, top, reachMm } = props.scale
  const spacingAt = (placeMm: number) => Math.abs(stringY(1, placeMm) - stringY(0, placeMm))
  /** Six strings leave less room than four. */
  const paleAt = (placeMm: number) => Math.min(SMALLEST_TIP_PX, spacingAt(placeMm) * 0.5)
  const shown = props.fingers
    .filter((finger) => finger.placeMm <= reachMm)
    .map((finger, index) => ({
      ...finger,
      x: along(finger.placeMm),
      y: stringY(finger.stringIndex, finger.placeMm),
      // By its order: a finger that moves is the same finger.
      id: index,
      // As broad along the string as it is; across it, no broader than leaves the neighbours to be seen.
      rx: finger.isPale ? paleAt(finger.placeMm) : Math.max(SMALLEST_TIP_PX, (finger.widthMm / 2) * pxPerMm),
      ry: finger.isPale
        ? paleAt(finger.placeMm)
        : Math.max(SMALLEST_TIP_PX, spacingAt(finger.placeMm) * 0.48),
      kind: finger.isPale ? 'pale' : finger.isResting ? 'resting' : finger.isMarked ? 'marked' : 'playing',
    }))
  const room = props.isUpright ? LABEL_LINE_PX : LABEL_PX
  const ends = [-Infinity, -Infinity]
  const inOrder = shown
    .filter((f) => !f.isPale)
    .map((f) => f.x)
    .sort((a, b) => a - b)
  const rows = new Map<number, number>()
  for (const x of inOrder) {
    const row = x - ends[0]! >= room || props.isUpright ? 0 : 1
    ends[row] = x
    rows.set(x, row)
  }
  return shown.map((finger) => {
    const row = rows.get(finger.x) ?? 0
    const labelY = top - (props.isUpright ? UPRIGHT_LEAD_PX : LEAD_PX) - row * ROW_PX
    return { ...finger, labelY, labelEnd: props.isUpright ? top - 4 : labelY + ROW_PX / 2 - 1 }
  })
})

/** Where two fingertips on one string would need the same room. */
const overlaps = computed(() =>
  drawn.value.flatMap((a, i) => {
    const b = drawn.value[i + 1]
    if (!b || a.isPale || b.isPale || b.finger === a.finger) return []
    const [left, right] = a.x < b.x ? [a, b] : [b, a]
    const rx = (left.x + left.rx - (right.x - right.rx)) / 2
    return rx > 0.5 ? [{ x: right.x - right.rx + rx, y: (a.y + b.y) / 2, rx, ry: a.ry * 0.75 }] : []
  }),
)
</script>

<style scoped>
.tip {
  fill: var(--card);
  stroke: var(--jade);
  stroke-width: 2.5;
}

.marked .tip {
  fill: var(--brass-wash);
  stroke: var(--brass);
}

.resting .tip {
  fill: none;
  stroke: var(--string);
  stroke-dasharray: 4 4;
}

.pale .tip {
  stroke-width: 1.5;
  opacity: 0.7;
}

.number {
  fill: var(--ink);
  font: 700 16px var(--font-text);
}

.resting .number {
  fill: var(--string-lit);
}

.pale .number {
  font-size: 13px;
}

.lead {
  stroke: var(--jade);
  stroke-width: 1.25;
}

.resting .lead {
  stroke-dasharray: 3 4;
}

.overlap {
  fill: var(--sharp);
  opacity: 0.55;
}

.place {
  fill: var(--jade);
  font: 700 16px var(--font-text);
  font-variant-numeric: tabular-nums;
}

.note {
  fill: var(--ink);
}
</style>
