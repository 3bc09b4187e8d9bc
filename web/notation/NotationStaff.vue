<template>
  <div class="staff">
    <div ref="paper" role="img" :aria-label="label" class="paper" />
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
  </div>
</template>

<script setup lang="ts">
import { ref, shallowRef, watch } from 'vue'
import type { NoteValue, Score } from './score'
import { useWidth } from '../ui/useWidth'

/** A line of music with fingers over the notes; the one that sounds is marked. */
const props = defineProps<{ score: Score; value: NoteValue; at: number | undefined; label: string }>()

const paper = ref<HTMLDivElement>()
const width = useWidth(paper)
const notes = shallowRef<readonly Element[]>([])
const fault = ref('')
let asked = 0

watch(
  [() => props.score, () => props.value, width],
  async () => {
    if (!paper.value || width.value < 200) return
    const mine = ++asked
    try {
      // The notation library is large: it comes when somebody looks at notes.
      const { drawScore } = await import('./draw')
      if (mine !== asked || !paper.value) return
      notes.value = await drawScore(paper.value, props.score, props.value, Math.floor(width.value))
      fault.value = ''
      mark(props.at, undefined)
    } catch (error) {
      fault.value = `The notes could not be drawn: ${error instanceof Error ? error.message : String(error)}`
    }
  },
  { immediate: true, flush: 'post' },
)

watch(() => props.at, mark)

function mark(at: number | undefined, before: number | undefined) {
  if (before !== undefined) notes.value[before]?.classList.remove('now')
  if (at !== undefined) notes.value[at]?.classList.add('now')
}
</script>

<style scoped>
.paper {
  min-height: 102px;
}

.paper :deep(svg) {
  display: block;
}

.paper :deep(svg *) {
  fill: var(--ink);
}

.paper :deep(svg path) {
  stroke: var(--ink);
}

.paper :deep(svg .now *) {
  fill: var(--sharp);
  stroke: var(--sharp);
}
</style>
