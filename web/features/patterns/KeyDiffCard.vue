<template>
  <section v-if="diff" class="card diff" aria-label="What changes">
    <p class="eyebrow">From {{ keyName(diff.from) }} to {{ keyName(diff.to) }}</p>
    <p class="head">{{ headline }}</p>
    <ul v-if="lines.length > 0">
      <li v-for="line in lines" :key="line">{{ line }}</li>
    </ul>
  </section>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { placeOfNote, type FingerMove, type Note } from '#core'
import { useBench } from '../../stores/bench'
import { count, length } from '../../words/numbers'
import { keyName } from '../../words/keys'
import { usePatterns } from './usePatterns'
import { noteLabel } from '../../words/notes'

const bench = useBench()
const { atlas } = usePatterns()
const diff = computed(() => atlas.diff.value)

const stringName = (index: number) => noteLabel(atlas.tuning.value[index]!, { octave: false })

const headline = computed(() => {
  if (!diff.value) return ''
  const { moves, otherHands } = diff.value
  if (moves.length + otherHands.length === 0) return 'Nothing changes under the hand in this position.'
  const fingers =
    moves.length > 0
      ? `${count(moves.length, 'finger')} on ${count(new Set(moves.map((m) => m.stringIndex)).size, 'string')}`
      : ''
  const hands = otherHands.length > 0 ? `another hand on ${count(otherHands.length, 'string')}` : ''
  return `${[fingers, hands].filter(Boolean).join(', and ')}.`
})
const lines = computed(() => [
  ...(diff.value?.moves ?? []).map(moveLine),
  ...(diff.value?.otherHands ?? []).map((i) => `${stringName(i)} string: the hand takes other fingers.`),
])

function moveLine({ stringIndex, from, to, semitones }: FingerMove): string {
  const placeOf = (note: Note) => placeOfNote(bench.stringing, stringIndex, note)
  const by = placeOf(to.note) - placeOf(from.note)
  const names = [from, to].map((s) => noteLabel(s.note, { octave: false }))
  const where = semitones > 0 ? 'towards the bridge' : 'towards the nut'
  return `${stringName(stringIndex)} string: ${to.finger} from ${names[0]} to ${names[1]}, ${length(Math.abs(by))} ${where}.`
}
</script>

<style scoped>
.diff {
  display: grid;
  gap: 6px;
  padding: 10px 14px;
}

.head {
  font: 500 20px/1.3 var(--font-title);
}

ul {
  margin: 0;
  padding-left: 18px;
}
</style>
