<template>
  <g :transform="`translate(0 ${y})`">
    <g v-for="tick in ticks" :key="tick.mm" :transform="`translate(${scale.along(tick.mm)} 0)`">
      <line :y2="tick.height" />
      <text v-if="tick.label" y="30" text-anchor="middle">{{ tick.label }}</text>
    </g>
    <text :x="scale.along(scale.reachMm)" y="30" :text-anchor="isFlipped ? 'start' : 'end'" class="unit">{{
      unitName()
    }}</text>
  </g>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { inUnit, toUnit, unitName } from '../words/numbers'
import type { BoardScale } from './board'

/** Closer than this, single millimetres run together. */
const MIN_TICK_PX = 3.2
const MIN_LABEL_PX = 34
/** As many marks to a unit as rules have, the finest first, and every how many units one may be numbered. */
const RULES = {
  mm: { steps: [1, 5, 10, 50], numbered: [10, 20, 50, 100, 200], tall: 10, middling: 5 },
  cm: { steps: [0.1, 0.5, 1, 5], numbered: [1, 2, 5, 10, 20], tall: 1, middling: 0.5 },
  in: { steps: [1 / 16, 1 / 8, 1 / 4, 1 / 2, 1], numbered: [1 / 2, 1, 2, 4, 8], tall: 1, middling: 1 / 2 },
} as const

const props = defineProps<{ scale: BoardScale; y: number; isFlipped: boolean }>()

const ticks = computed(() => {
  const { pxPerMm, fromMm, reachMm } = props.scale
  const mmPerUnit = 1 / toUnit(1)
  const pxPerUnit = pxPerMm * mmPerUnit
  const { steps, numbered, tall, middling } = RULES[unitName()]
  const step = steps.find((of) => of * pxPerUnit >= MIN_TICK_PX) ?? steps.at(-1)!
  const labelled = numbered.find((of) => of * pxPerUnit >= MIN_LABEL_PX) ?? numbered.at(-1)!
  // Marks are counted in steps: a tenth of a centimetre is no whole number of anything else.
  const isEvery = (index: number, of: number) => index % Math.max(1, Math.round(of / step)) === 0
  const first = Math.ceil(fromMm / (step * mmPerUnit))
  const last = Math.floor(reachMm / (step * mmPerUnit))
  return Array.from({ length: last - first + 1 }, (_, i) => {
    const index = first + i
    const mm = index * step * mmPerUnit
    const isNearEnd = (reachMm - mm) * pxPerMm < MIN_LABEL_PX
    return {
      mm,
      height: isEvery(index, tall) ? 14 : isEvery(index, middling) ? 10 : 6,
      label: isEvery(index, labelled) && !isNearEnd ? nameOf(mm) : '',
    }
  })
})

/** Whole numbers of the unit, halves of an inch as a rule has them. */
function nameOf(mm: number): string {
  return unitName() === 'in' ? inUnit(mm) : String(Math.round(toUnit(mm)))
}
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
