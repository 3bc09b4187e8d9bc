<template>
  <div @keydown="edit">
    <NotationStaff
      v-model:selected="selected"
      :score="line.score.value"
      :at="at"
      :label="label"
      :tuning="tuning"
      :settled="line.isScale.value ? line.own.settled.value : undefined"
      is-playable
      @hear="(index) => emit('hear', index)"
    />
    <p v-if="said" class="soft" role="status">{{ said }}</p>
  </div>
</template>

<script setup lang="ts">
import { ref } from 'vue'
import { isShifted, THUMB, type Digit, type FingeredNote, type Note } from '#core'
import NotationStaff from '../../notation/NotationStaff.vue'
import { noteLabel } from '../../words/notes'
import type { Line } from './useLine'

/** The line on its staff; of a scale every finger, string and shift can be changed by keys. */
const props = defineProps<{ line: Line; at: number | undefined; label: string; tuning: readonly Note[] }>()
const emit = defineEmits<{ hear: [index: number] }>()
/** The note that is looked at. */
const selected = defineModel<number | undefined>('selected')

/** Why a key did nothing. */
const said = ref('')

function edit(event: KeyboardEvent) {
  const index = selected.value
  if (index === undefined || !props.line.isScale.value) return
  if (event.ctrlKey || event.metaKey || event.altKey) return
  said.value = ''
  if (!change(event.key, index)) return
  event.preventDefault()
  event.stopPropagation()
}

function change(key: string, index: number): boolean {
  const { own, fingered } = props.line
  const now = fingered.value[index]
  if (key === 'Backspace' || key === 'Delete') return (own.release(index), true)
  if (!now) return false
  const finger = fingerOf(key)
  if (finger !== undefined) return (own.settle(index, { finger, stringIndex: undefined }), true)
  if (key === 'ArrowUp' || key === 'ArrowDown') {
    const to = now.stringIndex + (key === 'ArrowUp' ? 1 : -1)
    if (!props.tuning[to])
      return ((said.value = `There is no string ${to < 0 ? 'below' : 'above'} this one.`), true)
    return (own.settle(index, { stringIndex: to, finger: undefined }), true)
  }
  if (key === 's') {
    const isShift = index > 0 && isShifted(fingered.value[index - 1]?.hand, now.hand)
    return (own.settle(index, { isShift: !isShift }), true)
  }
  if (key === 'r') return (ring(index, now), true)
  return false
}

/** As a harmonic at a third or a quarter of a string, whichever sounds the note; again, it is stopped. */
function ring(index: number, { harmonic, note }: FingeredNote) {
  const { own, harmonicAt } = props.line
  if (harmonic !== undefined && harmonic > 2) return own.release(index)
  const part = harmonicAt(index)
  if (part === undefined)
    said.value = `No string sounds ${noteLabel(note)} as a harmonic at a third or a quarter.`
  else own.settle(index, { harmonic: part, finger: undefined, stringIndex: undefined })
}

function fingerOf(key: string): Digit | undefined {
  if (key === 't' || key === 'T') return THUMB
  return /^[0-4]$/.test(key) ? (Number(key) as Digit) : undefined
}
</script>
