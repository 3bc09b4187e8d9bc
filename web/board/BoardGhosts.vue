<template>
  <g v-for="tape in drawn" :key="tape.id">
    <rect :x="tape.x" :y="tape.y" :width="tape.width" :height="tape.height" rx="1" />
    <text :x="tape.middle" :y="tape.y + tape.height + 13" text-anchor="middle">
      {{ inUnit(tape.middleMm) }}
    </text>
  </g>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { inUnit } from '../words/numbers'
import type { BoardScale, BoardTape } from './board'

/** Tapes that lie on another board: outlines, with their places below. */
const props = defineProps<{ scale: BoardScale; tapes: readonly BoardTape[] }>()

const drawn = computed(() =>
  props.tapes
    .filter((tape) => tape.middleMm < props.scale.reachMm)
    .map((tape) => {
      const { along, middleY, halfWidthAt } = props.scale
      const [a, b] = [along(tape.nearEdgeMm), along(tape.farEdgeMm)]
      const half = halfWidthAt(tape.middleMm) + 3
      return {
        id: tape.id,
        middleMm: tape.middleMm,
        x: Math.min(a, b),
        width: Math.abs(b - a),
        middle: (a + b) / 2,
        y: middleY - half,
        height: 2 * half,
      }
    }),
)
</script>

<style scoped>
rect {
  fill: none;
  stroke: var(--brass);
  stroke-width: 1.75;
  stroke-dasharray: 5 4;
}

text {
  fill: var(--brass-ink);
  font: 600 15px var(--font-text);
  font-variant-numeric: tabular-nums;
}
</style>
