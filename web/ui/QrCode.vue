<template>
  <svg
    v-if="drawn"
    class="qr"
    role="img"
    :aria-label="label"
    :viewBox="`-4 -4 ${drawn.side + 8} ${drawn.side + 8}`"
  >
    <rect x="-4" y="-4" :width="drawn.side + 8" :height="drawn.side + 8" fill="#fff" />
    <path :d="drawn.path" fill="#000" shape-rendering="crispEdges" />
  </svg>
</template>

<script setup lang="ts">
import { shallowRef, watch } from 'vue'

/** A code for a camera (ISO/IEC 18004), with the four modules of quiet around it; black on white in the dark theme too. */
const props = defineProps<{ readonly text: string; readonly label: string }>()

const drawn = shallowRef<{ readonly side: number; readonly path: string }>()

watch(() => props.text, draw, { immediate: true })

async function draw(text: string) {
  // Three places need it, once a year.
  const { create } = await import('qrcode')
  const { modules } = create(text, { errorCorrectionLevel: 'M' })
  const { size } = modules
  const dark = [...modules.data.keys()].filter((index) => modules.data[index])
  const path = dark.map((index) => `M${index % size} ${Math.floor(index / size)}h1v1h-1z`).join('')
  if (text === props.text) drawn.value = { side: size, path }
}
</script>

<style scoped>
.qr {
  display: block;
  width: 100%;
  max-width: 220px;
  border-radius: 6px;
}
</style>
