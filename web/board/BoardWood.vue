<template>
  <g>
    <polygon :points="outline" fill="var(--wood)" />
    <rect
      v-if="scale.fromMm === 0"
      :x="nutX"
      :y="scale.middleY - nutHalf - 2"
      :width="NUT_PX"
      :height="2 * nutHalf + 4"
      rx="2"
      fill="var(--nut)"
      stroke="var(--line-strong)"
      stroke-width="0.75"
    />
  </g>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import type { BoardScale } from './board'

const NUT_PX = 9

const props = defineProps<{ scale: BoardScale; isFlipped: boolean }>()

const nutHalf = computed(() => props.scale.halfWidthAt(0))
const nutX = computed(() => props.scale.along(0) - (props.isFlipped ? 0 : NUT_PX))
const outline = computed(() => {
  const { along, fromMm, reachMm, middleY, halfWidthAt } = props.scale
  const [near, far] = [along(fromMm), along(reachMm)]
  const [a, b] = [halfWidthAt(fromMm), halfWidthAt(reachMm)]
  return `${near},${middleY - a} ${far},${middleY - b} ${far},${middleY + b} ${near},${middleY + a}`
})
</script>
