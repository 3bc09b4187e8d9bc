<template>
  <g :transform="`translate(0 ${y})`">
    <g v-for="tick in ticks" :key="tick.mm" :transform="`translate(${scale.along(tick.mm)} 0)`">
      <line :y2="tick.height" />
      <text v-if="tick.label" y="30" text-anchor="middle">{{ tick.mm }}</text>
    </g>
    <text :x="scale.along(scale.reachMm)" y="30" :text-anchor="isFlipped ? 'start' : 'end'" class="unit"
      >mm</text
    >
  </g>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import type { BoardScale } from './board'

/** Closer than this, single millimetres run together. */
const MIN_TICK_PX = 3.2
const MIN_LABEL_PX = 34

const props = defineProps<{ scale: BoardScale; y: number; isFlipped: boolean }>()

const ticks = computed(() => {
  const { pxPerMm, fromMm, reachMm } = props.scale
  const step = [1, 5, 10].find((mm) => mm * pxPerMm >= MIN_TICK_PX) ?? 50
  const labelled = [10, 20, 50, 100].find((mm) => mm * pxPerMm >= MIN_LABEL_PX) ?? 200
  const first = Math.ceil(fromMm / step)
  return Array.from({ length: Math.floor(reachMm / step) - first + 1 }, (_, index) => {
    const mm = (first + index) * step
    const nearEnd = (reachMm - mm) * pxPerMm < MIN_LABEL_PX
    return { mm, height: mm % 10 === 0 ? 14 : mm % 5 === 0 ? 10 : 6, label: mm % labelled === 0 && !nearEnd }
  })
})
</script>

<style scoped>
line {
  stroke: var(--line-strong);
}

text {
  fill: var(--ink-soft);
  font: 500 13px var(--font-text);
  font-variant-numeric: tabular-nums;
}
</style>
