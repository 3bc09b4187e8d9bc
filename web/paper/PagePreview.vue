<template>
  <svg :viewBox="`0 0 ${page.widthMm} ${page.heightMm}`" role="img" aria-label="The sheet as it is printed">
    <template v-for="(item, index) in page.items" :key="index">
      <rect
        v-if="item.kind === 'band'"
        :x="item.x"
        :y="item.y"
        :width="item.w"
        :height="item.h"
        class="band"
      />
      <line
        v-else-if="item.kind === 'line'"
        :x1="item.x1"
        :y1="item.y1"
        :x2="item.x2"
        :y2="item.y2"
        :stroke-width="item.widthMm"
        :stroke-dasharray="item.isDashed ? '3 2' : undefined"
      />
      <circle
        v-else-if="item.kind === 'circle'"
        :cx="item.x"
        :cy="item.y"
        :r="item.r"
        :class="['circle', item.fill]"
        :stroke-width="item.widthMm"
        :stroke-dasharray="item.isDashed ? '1 0.8' : undefined"
      />
      <path
        v-else-if="item.kind === 'path'"
        :d="item.d"
        :transform="`translate(${item.x} ${item.y}) scale(${item.scaleX} ${item.scaleY})`"
        :class="item.widthMm === undefined ? 'filled' : 'stroked'"
        :stroke-width="item.widthMm === undefined ? undefined : item.widthMm / Math.abs(item.scaleX)"
      />
      <text
        v-else
        :x="item.x"
        :y="item.y"
        :font-size="item.sizeMm"
        :font-weight="item.isBold ? 700 : 400"
        :text-anchor="item.isCentred ? 'middle' : 'start'"
        :class="{ white: item.isWhite }"
      >
        {{ item.text }}
      </text>
    </template>
  </svg>
</template>

<script setup lang="ts">
import type { Page } from '#core'

/** A sheet on the screen: the same items that go to the printer. */
defineProps<{ page: Page }>()
</script>

<style scoped>
svg {
  display: block;
  max-width: 100%;
  max-height: 66vh;
  margin: 0 auto;
  background: #fff;
  box-shadow: 0 2px 10px rgb(0 0 0 / 25%);
  font-family: var(--font-text);
}

.band {
  fill: #dcdcdc;
}

line,
.circle {
  stroke: #000;
}

.circle.white {
  fill: #fff;
}

.circle.none {
  fill: none;
}

path.filled {
  fill: #000;
}

path.stroked {
  fill: none;
  stroke: #000;
}

text {
  fill: #000;
}

text.white {
  fill: #fff;
}
</style>
