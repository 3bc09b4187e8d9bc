<template>
  <section class="card" aria-label="Hand">
    <p class="eyebrow">Hand</p>
    <dl>
      <dt>In tune within</dt>
      <dd>{{ student.toleranceCents }} cents</dd>
      <dt>Tapes</dt>
      <dd>{{ schoolName(student.tapeSchoolId ?? familyOf(student.family).defaultSchoolId) }}</dd>
      <template v-for="frame in frames" :key="frame.id">
        <dt>{{ frame.title }}</dt>
        <dd>{{ mm(frame.widthMm) }} mm, first position</dd>
      </template>
      <dt>Lesson</dt>
      <dd>
        {{ student.lesson ? `${WEEKDAYS[student.lesson.weekday]} ${student.lesson.time}` : 'no fixed time' }}
      </dd>
    </dl>
    <p v-if="student.note" class="note" dir="auto">{{ student.note }}</p>
  </section>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { familyOf, frameWidthMm } from '#core'
import type { Student } from '#contracts'
import { mm } from '../../words/numbers'
import { schoolName, WEEKDAYS } from '../../words/trade'

const FRAME_TITLES: Record<string, string> = {
  fourth: 'Frame 1 to 4',
  closed: 'Frame, closed',
  extended: 'Frame, extended',
  one_two_four: 'Frame 1 to 4',
  four_finger: 'Frame, four fingers',
}
/** The usual first finger, a whole tone above the open string. */
const FIRST_POSITION_SEMITONES = 2

const props = defineProps<{ student: Student }>()
const frames = computed(() => {
  const lengthMm = props.student.instrument?.measurement?.lengthMm
  if (lengthMm === undefined) return []
  return familyOf(props.student.family).frames.map(({ id, semitones }) => ({
    id,
    title: FRAME_TITLES[id] ?? id,
    widthMm: frameWidthMm(lengthMm, FIRST_POSITION_SEMITONES, semitones),
  }))
})
</script>

<style scoped>
.card {
  display: grid;
  align-content: start;
  gap: 8px;
}

dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 4px 14px;
  margin: 0;
}

dt {
  color: var(--ink-soft);
}

dd {
  margin: 0;
  font-weight: 600;
  text-align: right;
  font-variant-numeric: tabular-nums;
}

.note {
  padding-top: 8px;
  border-top: 1px solid var(--line);
  white-space: pre-line;
  overflow-wrap: anywhere;
}
</style>
