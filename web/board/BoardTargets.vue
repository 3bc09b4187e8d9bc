<template>
  <g>
    <g v-for="target in drawn" :key="`${target.stringIndex}-${target.finger}`">
      <line
        v-if="isAim"
        :x1="target.x"
        :x2="target.x"
        :y1="scale.top - 4"
        :y2="scale.bottom + 6"
        class="aim"
      />
      <template v-else>
        <circle :cx="target.x" :cy="target.y" r="14" />
        <text :x="target.x" :y="target.y" text-anchor="middle" dominant-baseline="central">
          {{ target.finger }}
        </text>
      </template>
    </g>
  </g>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import type { BoardScale, BoardTarget } from './board'

/** `isAim`: as a dashed line across the board, to leave the string to the landings. */
const props = defineProps<{ scale: BoardScale; targets: readonly BoardTarget[]; isAim: boolean }>()

const drawn = computed(() =>
  props.targets
    .filter((target) => target.placeMm < props.scale.reachMm)
    .map((target) => ({
      ...target,
      x: props.scale.along(target.placeMm),
      y: props.scale.stringY(target.stringIndex, target.placeMm),
    })),
)
</script>

<style scoped>
circle {
  fill: var(--card);
  stroke: var(--jade);
  stroke-width: 2.5;
}

text {
  fill: var(--ink);
  font: 700 15px var(--font-text);
}

.aim {
  stroke: var(--jade);
  stroke-width: 1.75;
  stroke-dasharray: 5 4;
}
</style>
