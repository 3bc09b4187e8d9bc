<template>
  <g>
    <g v-for="target in drawn" :key="`${target.stringIndex}-${target.finger}-${target.placeMm}`">
      <line v-if="isAim" :x1="target.x" :x2="target.x" :y1="target.aimFrom" :y2="target.aimTo" class="aim" />
      <template v-else>
        <circle :cx="target.x" :cy="target.y" r="14" />
        <text :x="target.x" :y="target.y" text-anchor="middle" dominant-baseline="central">
          {{ fingerSign(target.finger) }}
        </text>
      </template>
    </g>
  </g>
</template>

<script setup lang="ts">
import { fingerSign } from '../words/fingers'
import { computed } from 'vue'
import type { BoardScale, BoardTarget } from './board'

/**
 * `isAim`: as a dashed line, to leave the string to the landings; across the board, or, where several strings have places,
 * across their own string.
 */
const props = defineProps<{ scale: BoardScale; targets: readonly BoardTarget[]; isAim: boolean }>()

/** Half of an aim across one string. */
const AIM_PX = 13
const isOnOneString = computed(() => new Set(props.targets.map((t) => t.stringIndex)).size < 2)
const drawn = computed(() =>
  props.targets
    .filter((target) => target.placeMm < props.scale.reachMm)
    .map((target) => {
      const y = props.scale.stringY(target.stringIndex, target.placeMm)
      const [aimFrom, aimTo] = isOnOneString.value
        ? [props.scale.top - 4, props.scale.bottom + 6]
        : [y - AIM_PX, y + AIM_PX]
      return { ...target, x: props.scale.along(target.placeMm), y, aimFrom, aimTo }
    }),
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
