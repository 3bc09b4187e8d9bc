<template>
  <div class="staff">
    <div
      class="paper"
      :tabindex="isPlayable ? 0 : undefined"
      role="group"
      aria-roledescription="notes"
      :aria-label="label"
      @keydown="move"
      @focus="selected ??= 0"
      @click="choose"
    >
      <div ref="paper" aria-hidden="true" class="drawn" :class="{ playable: isPlayable }" />
      <ol class="visually-hidden">
        <li v-for="(text, index) in texts" :key="index">{{ text }}</li>
      </ol>
      <p class="visually-hidden" aria-live="polite">
        {{ isPlayable && selected !== undefined ? texts[selected] : '' }}
      </p>
    </div>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
  </div>
</template>

<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import type { Note, Score } from '#core'
import { useWidth } from '../ui/useWidth'
import { scoreNoteWords } from '../words/score'
import type { DrawnNote } from './draw'

/**
 * A line of music with what a player reads over it; the note that sounds is marked, and the one that is looked at. Where
 * notes can be heard, arrows walk through them, and a click or Enter sounds one.
 */
const props = defineProps<{
  score: Score
  at: number | undefined
  label: string
  tuning?: readonly Note[]
  isPlayable?: boolean
  /** Notes that a teacher has settled. */
  settled?: ReadonlySet<number> | undefined
}>()
const emit = defineEmits<{ hear: [index: number] }>()
/** The note that is looked at. */
const selected = defineModel<number | undefined>('selected')

const paper = ref<HTMLDivElement>()
const width = useWidth(paper)
const drawn = shallowRef<readonly DrawnNote[]>([])
const fault = ref('')
let asked = 0

const all = computed(() => props.score.bars.flat())
const texts = computed(() => all.value.map((note) => scoreNoteWords(note, props.tuning)))

watch(
  [() => props.score, width],
  async () => {
    if (!paper.value || width.value < 200) return
    const mine = ++asked
    try {
      // The notation library is large: it comes when somebody looks at notes.
      const { drawScore } = await import('./draw')
      if (mine !== asked || !paper.value) return
      drawn.value = await drawScore(paper.value, props.score, Math.floor(width.value))
      fault.value = ''
      markAll()
    } catch (error) {
      fault.value = `The notes could not be drawn: ${error instanceof Error ? error.message : String(error)}`
    }
  },
  { immediate: true, flush: 'post' },
)

watch([() => props.at, selected, () => props.settled], markAll)
watch(all, (notes) => {
  if (selected.value !== undefined && selected.value >= notes.length) selected.value = undefined
})

function markAll() {
  drawn.value.forEach(({ parts, hit }, index) => {
    for (const part of parts) {
      part.classList.toggle('now', index === props.at)
      part.classList.toggle('settled', props.settled?.has(index) ?? false)
    }
    hit.classList.toggle('selected', index === selected.value)
  })
}

function move(event: KeyboardEvent) {
  if (!props.isPlayable || event.ctrlKey || event.metaKey || event.altKey) return
  const last = all.value.length - 1
  const now = selected.value ?? 0
  const to = { ArrowRight: now + 1, ArrowLeft: now - 1, Home: 0, End: last }[event.key]
  if (to !== undefined) selected.value = Math.min(last, Math.max(0, to))
  else if (event.key === 'Enter') emit('hear', now)
  else return
  event.preventDefault()
  event.stopPropagation()
}

function choose(event: MouseEvent) {
  if (!props.isPlayable) return
  const index = drawn.value.findIndex(({ hit }) => hit === event.target)
  if (index < 0) return
  selected.value = index
  emit('hear', index)
}
</script>

<style scoped>
.drawn {
  min-height: 102px;
}

.paper:focus-visible {
  outline: 2px solid var(--jade);
  outline-offset: 4px;
  border-radius: 6px;
}

.drawn :deep(svg) {
  display: block;
}

.drawn :deep(svg *) {
  fill: var(--ink);
}

.drawn :deep(svg path) {
  stroke: var(--ink);
}

.drawn :deep(svg line),
.drawn :deep(svg .ring) {
  fill: none;
  stroke: var(--ink);
}

.drawn :deep(svg .shift) {
  stroke: var(--brass);
  stroke-width: 1.4;
}

.drawn :deep(svg text) {
  stroke: none;
}

.drawn :deep(svg .numeral),
.drawn :deep(svg .position) {
  fill: var(--ink-soft);
}

.drawn :deep(svg .settled),
.drawn :deep(svg .settled *:not(text)) {
  fill: var(--jade);
  stroke: var(--jade);
}

.drawn :deep(svg .now),
.drawn :deep(svg .now *) {
  fill: var(--sharp);
  stroke: var(--sharp);
}

.drawn :deep(svg .hit) {
  fill: transparent;
  stroke: none;
}

.playable :deep(svg .hit) {
  cursor: pointer;
}

.playable :deep(svg .hit.selected) {
  fill: var(--jade);
  fill-opacity: 0.14;
}
</style>
