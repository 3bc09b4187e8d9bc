<template>
  <g v-for="landing in drawn" :key="`${landing.stringIndex}-${landing.finger}-${landing.targetMm}`">
    <line :x1="landing.x" :x2="landing.x" :y1="landing.y - 24" :y2="landing.y + 24" />
    <circle :cx="landing.x" :cy="landing.y" r="15" />
  </g>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import type { BoardLanding, BoardScale } from './board'

/** Where fingers landed another day: dashed rings under those of now. */
const props = defineProps<{ scale: BoardScale; landings: readonly BoardLanding[] }>()

const drawn = computed(() =>
  props.landings.map((landing) => ({
    ...landing,
    x: props.scale.along(landing.meanMm),
    y: props.scale.stringY(landing.stringIndex, landing.meanMm),
  })),
)
</script>

<style scoped>
circle,
line {
  fill: none;
  stroke: var(--brass);
  stroke-width: 2.25;
  stroke-dasharray: 4 3;
}
</style>
