<template>
  <svg
    class="figure"
    role="img"
    :aria-label="label"
    :viewBox="`${figure.x} ${figure.y} ${figure.width} ${figure.height}`"
    :style="{ '--pen': `${figure.width / 330}px` }"
  >
    <template v-for="(part, index) in figure.parts" :key="index">
      <template v-if="part.kind === 'body'">
        <g class="outline"><path v-for="(path, i) in part.outlines" :key="i" :d="path" /></g>
        <g :class="part.of"><path v-for="(path, i) in part.outlines" :key="i" :d="path" /></g>
        <circle
          v-for="(joint, i) in part.joints"
          :key="i"
          class="joint"
          :cx="joint.x"
          :cy="joint.y"
          :r="dot"
        />
      </template>
      <g v-else-if="part.kind === 'patch'" :class="part.of">
        <path v-for="(path, i) in part.outlines" :key="i" :d="path" />
      </g>
      <circle v-else-if="part.kind === 'joint'" class="joint" :cx="part.at.x" :cy="part.at.y" :r="dot" />
      <path v-else-if="part.kind === 'line'" :class="['line', part.of]" :d="part.path" />
      <path v-else-if="part.kind === 'spot'" class="spot" :d="part.path" />
      <text
        v-else-if="part.kind === 'tag'"
        class="tag"
        :x="part.at.x"
        :y="part.at.y"
        :text-anchor="part.anchor"
        :font-size="figure.width / 17"
      >
        {{ tagWords(part) }}
      </text>
    </template>
  </svg>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import type { Figure, FigurePart } from '#core'
import { length } from '../words/numbers'

/** A drawing of the hold in true millimetres, as large as its place allows. */
const props = defineProps<{ figure: Figure; label: string }>()
const dot = computed(() => props.figure.width / 72)

function tagWords({ value, unit }: Extract<FigurePart, { kind: 'tag' }>): string {
  if (unit === 'degrees') return `${value}°`
  return unit === 'mm' ? length(value, 0) : `${value} of 5`
}
</script>

<style scoped>
.figure {
  display: block;
  width: 100%;
  height: 100%;
}

.outline {
  fill: var(--figure-ink);
  stroke: var(--figure-ink);
  stroke-width: calc(var(--pen) * 2.6);
  stroke-linejoin: round;
}

.skin {
  fill: var(--figure-skin);
}

.far_skin {
  fill: var(--figure-far-skin);
}

.sleeve {
  fill: var(--figure-sleeve);
}

.far_sleeve {
  fill: var(--figure-far-sleeve);
}

.neck {
  fill: var(--figure-neck);
}

.wood {
  fill: var(--figure-wood);
}

.board {
  fill: var(--wood);
}

.rest,
.ground {
  fill: var(--figure-rest);
}

.metal {
  fill: var(--string);
}

.nail {
  fill: var(--figure-nail);
}

.joint {
  fill: var(--card);
  stroke: var(--figure-ink);
  stroke-width: calc(var(--pen) * 1.3);
}

.line {
  fill: none;
  stroke: var(--figure-ink);
  stroke-width: calc(var(--pen) * 1.4);
  stroke-linecap: round;
  stroke-linejoin: round;
}

.string {
  stroke: var(--line-strong);
}

.detail {
  opacity: 0.6;
}

.motion {
  stroke: var(--brass);
  stroke-width: calc(var(--pen) * 2.4);
}

.compare {
  stroke: var(--figure-accent, var(--jade));
  stroke-dasharray: 0.1 calc(var(--pen) * 6);
  stroke-width: calc(var(--pen) * 2.4);
}

.mark {
  stroke: var(--figure-accent, var(--jade));
  stroke-width: calc(var(--pen) * 3.4);
}

.tag {
  fill: var(--figure-accent, var(--jade));
  stroke: var(--card);
  stroke-width: calc(var(--pen) * 5);
  paint-order: stroke;
  font-family: var(--font-text);
  font-weight: 700;
}

.spot {
  fill: color-mix(in srgb, var(--brass) 28%, transparent);
  stroke: var(--brass);
  stroke-width: calc(var(--pen) * 1.6);
}
</style>
