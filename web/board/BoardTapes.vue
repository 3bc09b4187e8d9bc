<template>
  <g>
    <g v-for="tape in drawn" :key="tape.id">
      <polygon :points="tape.points" fill="var(--tape)" opacity="0.93" />
      <line
        v-if="showPlaces"
        :x1="tape.x"
        :x2="tape.x"
        :y1="scale.top - 6"
        :y2="scale.bottom + 8"
        stroke="var(--jade)"
        stroke-width="1.5"
      />
      <line
        v-if="showPlaces && tape.isMoved"
        :x1="tape.x"
        :x2="tape.labelX"
        :y1="scale.top - 6"
        :y2="scale.top - 13"
        stroke="var(--jade)"
      />
      <text v-if="showPlaces" :x="tape.labelX" :y="scale.top - (isUpright ? 46 : 15)" text-anchor="middle">
        {{ inUnit(tape.middleMm) }}<tspan v-if="tape.hasUnit" class="unit">{{ ` ${unitName()}` }}</tspan>
      </text>
    </g>
  </g>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { inUnit, unitName } from '../words/numbers'
import { spread, type BoardScale, type BoardTape } from './board'

const OVERHANG_PX = 3
/** Room for a place with its unit, for the figure alone, and upright from one line of text to the next. */
const LABEL_WITH_UNIT_PX = 96
const LABEL_PX = 56
const LABEL_LINE_PX = 24

const props = defineProps<{
  scale: BoardScale
  tapes: readonly BoardTape[]
  showPlaces: boolean
  isUpright?: boolean
}>()

const drawn = computed(() => {
  const { along, middleY, halfWidthAt, fromMm, reachMm } = props.scale
  const shown = props.tapes.filter(({ middleMm }) => middleMm > fromMm && middleMm < reachMm)
  const middles = shown.map((tape) => along(tape.middleMm))
  // Of tapes that all but touch each keeps its number: they move apart, led to from their tapes.
  const labels = spread(middles, props.isUpright ? LABEL_LINE_PX : LABEL_PX)
  return shown.map((tape, i) => {
    const x = middles[i]!
    const [x1, x2] = [along(tape.nearEdgeMm), along(tape.farEdgeMm)]
    const [a, b] = [halfWidthAt(tape.nearEdgeMm) + OVERHANG_PX, halfWidthAt(tape.farEdgeMm) + OVERHANG_PX]
    const room = Math.min(...middles.map((m, j) => (i === j ? Infinity : Math.abs(m - x))))
    return {
      ...tape,
      x,
      labelX: labels[i]!,
      isMoved: Math.abs(labels[i]! - x) > 1,
      hasUnit: room >= LABEL_WITH_UNIT_PX,
      points: `${x1},${middleY - a} ${x2},${middleY - b} ${x2},${middleY + b} ${x1},${middleY + a}`,
    }
  })
})
</script>

<style scoped>
text {
  fill: var(--jade);
  font: 700 21px var(--font-text);
  font-variant-numeric: tabular-nums;
}

.unit {
  font-size: 15px;
  font-weight: 600;
}
</style>
