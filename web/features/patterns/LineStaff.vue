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
  </div>
</template>

<script setup lang="ts">
import { isShifted, THUMB, type Digit, type Note } from '#core'
import NotationStaff from '../../notation/NotationStaff.vue'
import type { Line } from './useLine'

/** The line on its staff; of a scale every finger, string and shift can be changed by keys. */
const props = defineProps<{ line: Line; at: number | undefined; label: string; tuning: readonly Note[] }>()
const emit = defineEmits<{ hear: [index: number] }>()
/** The note that is looked at. */
const selected = defineModel<number | undefined>('selected')

function edit(event: KeyboardEvent) {
  const index = selected.value
  if (index === undefined || !props.line.isScale.value) return
  if (event.ctrlKey || event.metaKey || event.altKey || !change(event.key, index)) return
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
    if (to < 0 || to >= props.tuning.length) return true
    return (own.settle(index, { stringIndex: to, finger: undefined }), true)
  }
  if (key === 's') {
    const isShift = index > 0 && isShifted(fingered.value[index - 1]?.hand, now.hand)
    return (own.settle(index, { isShift: !isShift }), true)
  }
  if (key === 'z') {
    // A third or a quarter of the string, whichever sounds the note; again, it is stopped.
    const isTouched = now.harmonic !== undefined && now.harmonic > 2
    const part = isTouched ? undefined : props.line.harmonicAt(index)
    return (own.settle(index, { harmonic: part, finger: undefined, stringIndex: undefined }), true)
  }
  return false
}

function fingerOf(key: string): Digit | undefined {
  if (key === 't' || key === 'T') return THUMB
  return /^[0-4]$/.test(key) ? (Number(key) as Digit) : undefined
}
</script>
