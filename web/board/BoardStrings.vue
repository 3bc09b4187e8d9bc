<template>
  <g>
    <g v-for="line in lines" :key="line.index">
      <line
        :x1="line.x1"
        :y1="line.y1"
        :x2="line.x2"
        :y2="line.y2"
        :stroke="line.index === activeString ? 'var(--string-lit)' : 'var(--string)'"
        :stroke-width="line.thickness"
        :opacity="activeString === undefined || line.index === activeString ? 1 : 0.55"
      />
      <text
        :x="line.labelX"
        :y="line.y1"
        :class="{ active: line.index === activeString }"
        dominant-baseline="central"
        :text-anchor="isFlipped ? 'start' : 'end'"
      >
        {{ line.name }}
      </text>
    </g>
  </g>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { type Note } from '#core'
import type { BoardScale } from './board'
import { noteLabel } from '../words/notes'

const THICKEST_PX = 3.6
const THINNEST_PX = 1.2
const LABEL_GAP_PX = 18

const props = defineProps<{
  scale: BoardScale
  tuning: readonly Note[]
  isFlipped: boolean
  activeString: number | undefined
}>()

const lines = computed(() => {
  const { along, fromMm, reachMm, stringY } = props.scale
  const last = props.tuning.length - 1
  return props.tuning.map((open, index) => ({
    index,
    name: noteLabel(open, { octave: false }),
    x1: along(fromMm),
    x2: along(reachMm),
    y1: stringY(index, fromMm),
    y2: stringY(index, reachMm),
    thickness: THICKEST_PX + ((THINNEST_PX - THICKEST_PX) * index) / last,
    labelX: along(fromMm) + (props.isFlipped ? LABEL_GAP_PX : -LABEL_GAP_PX),
  }))
})
</script>

<style scoped>
text {
  fill: var(--ink);
  font: 600 15px var(--font-text);
}

text.active {
  fill: var(--jade);
  font-weight: 800;
}
</style>
