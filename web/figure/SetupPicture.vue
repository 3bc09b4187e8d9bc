<template>
  <figure class="picture" :class="tone">
    <figcaption>
      <span class="eyebrow">{{ heading }}</span>
      <span class="says">{{ says }}</span>
    </figcaption>
    <FigureView :figure="figure" :label="`${heading}: ${says}`" />
  </figure>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import type { Figure } from '#core'
import { captionOf } from '../words/figure'
import FigureView from './FigureView.vue'

/** A drawing of an item with what it says above it: as it should be, the usual wrong, or this hand as measured. */
const props = defineProps<{ figure: Figure; tone: 'right' | 'wrong' | 'measured' }>()
const HEADINGS = { right: 'Like this', wrong: 'Not this', measured: 'This hand' } as const
const heading = computed(() => HEADINGS[props.tone])
const says = computed(() => captionOf(props.figure))
</script>

<style scoped>
.picture {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  gap: 4px;
  min-height: 0;
  margin: 0;
  padding: 12px 16px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--card);
}

figcaption {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  justify-content: space-between;
  gap: 2px 12px;
}

.says {
  font: 600 18px/1.25 var(--font-text);
  font-variant-numeric: tabular-nums lining-nums;
}

.right .eyebrow,
.right .says {
  color: var(--jade);
}

.wrong .eyebrow,
.wrong .says {
  color: var(--sharp);
}

.wrong {
  --figure-accent: var(--sharp);
}

.measured .eyebrow,
.measured .says {
  color: var(--brass-ink);
}

.measured {
  --figure-accent: var(--brass-ink);
}
</style>
