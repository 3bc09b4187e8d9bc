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
      <text v-if="showPlaces" :x="tape.x" :y="scale.top - 14" text-anchor="middle">
        {{ tape.middleMm.toFixed(1) }}<tspan class="unit"> mm</tspan>
      </text>
    </g>
  </g>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import type { BoardScale, BoardTape } from './board'

const OVERHANG_PX = 3

const props = defineProps<{ scale: BoardScale; tapes: readonly BoardTape[]; showPlaces: boolean }>()

const drawn = computed(() =>
  props.tapes
    .filter((tape) => tape.middleMm < props.scale.reachMm)
    .map((tape) => {
      const { along, middleY, halfWidthAt } = props.scale
      const [x1, x2] = [along(tape.nearEdgeMm), along(tape.farEdgeMm)]
      const [a, b] = [halfWidthAt(tape.nearEdgeMm) + OVERHANG_PX, halfWidthAt(tape.farEdgeMm) + OVERHANG_PX]
      return {
        ...tape,
        x: along(tape.middleMm),
        points: `${x1},${middleY - a} ${x2},${middleY - b} ${x2},${middleY + b} ${x1},${middleY + a}`,
      }
    }),
)
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
