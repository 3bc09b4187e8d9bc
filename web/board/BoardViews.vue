<template>
  <div class="views" role="group" aria-label="How the board is shown">
    <button v-for="z in ZOOMS" :key="z" type="button" :aria-pressed="zoom === z" @click="zoom = z">
      {{ ZOOM_NAMES[z] }}
    </button>
    <button type="button" :aria-pressed="isFlipped" @click="isFlipped = !isFlipped">Facing</button>
    <slot />
  </div>
</template>

<script setup lang="ts">
import { useAsStudio } from '../ui/asStudio'
import { ZOOMS, type Zoom } from './board'
import { useZoom } from './useZoom'

/** How far up a board is shown, and from which side; the same for every board on this machine. */
const ZOOM_NAMES: Record<Zoom, string> = { playing: 'Playing area', octave: 'Octave', board: 'Whole board' }
const zoom = useZoom()
const isFlipped = useAsStudio('boardFacing')
</script>

<style scoped>
.views {
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
}

.views :slotted(button),
button {
  white-space: nowrap;
  border: 0;
  border-radius: 5px;
  padding: 4px 10px;
  background: none;
  color: var(--ink-soft);
  font: 600 14px var(--font-text);
  cursor: pointer;
}

.views :slotted(button[aria-pressed='true']),
button[aria-pressed='true'] {
  background: var(--jade-wash);
  color: var(--jade-deep);
}

.views :slotted(button:hover),
button:hover {
  color: var(--ink);
}
</style>
