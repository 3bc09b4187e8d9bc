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
      <dt>Hand, 1 to 4</dt>
      <dd>{{ span }}</dd>
      <template v-if="fit">
        <dt>{{ sizeName(student.instrument?.sizeId ?? '') }} for this hand</dt>
        <dd :class="fit">{{ FIT_NAMES[fit] }}</dd>
      </template>
      <template v-if="secure.length > 0">
        <dt>Patterns secure</dt>
        <dd>{{ secure.join(' · ') }}</dd>
      </template>
      <template v-if="learning.length > 0">
        <dt>Learning</dt>
        <dd>{{ learning.join(' · ') }}</dd>
      </template>
      <dt>Lesson</dt>
      <dd>
        {{ student.lesson ? `${WEEKDAYS[student.lesson.weekday]} ${student.lesson.time}` : 'no fixed time' }}
      </dd>
    </dl>
    <p>
      <RouterLink :to="{ name: 'hand', params: { studentId: student.id } }">{{
        student.hand ? 'Measures, growth and fit' : 'Measure the hand'
      }}</RouterLink>
      <kbd class="key">H</kbd>
    </p>
    <p v-if="student.note" class="note" dir="auto">{{ student.note }}</p>
  </section>
</template>

<script setup lang="ts">
import { computed, toRef } from 'vue'
import { familyOf, firstPositionWidthMm, fitOfLength, patternWithId, type MasteryState } from '#core'
import type { Student } from '#contracts'
import { mm } from '../../words/numbers'
import { FIT_NAMES, stepsName } from '../../words/patterns'
import { schoolName, sizeName, WEEKDAYS } from '../../words/trade'
import { useMastery } from '../patterns/useMastery'

const FRAME_TITLES: Record<string, string> = {
  fourth: 'Frame 1 to 4',
  closed: 'Frame, closed',
  extended: 'Frame, extended',
  one_two_four: 'Frame 1 to 4',
  four_finger: 'Frame, four fingers',
}

const props = defineProps<{ student: Student }>()
const { marks } = useMastery(toRef(props, 'student'))
const family = computed(() => familyOf(props.student.family))
const lengthMm = computed(() => props.student.instrument?.measurement?.lengthMm)
const frames = computed(() => {
  const length = lengthMm.value
  if (length === undefined) return []
  return family.value.frames.map((frame) => ({
    id: frame.id,
    title: FRAME_TITLES[frame.id] ?? frame.id,
    widthMm: firstPositionWidthMm(family.value, frame, length),
  }))
})
const span = computed(() => {
  const { hand } = props.student
  if (!hand) return 'not measured'
  return hand.reachedSpanMm === null
    ? `${mm(hand.comfortableSpanMm)} mm`
    : `${mm(hand.comfortableSpanMm)}, reached ${mm(hand.reachedSpanMm)} mm`
})
const fit = computed(() =>
  props.student.hand && lengthMm.value !== undefined
    ? fitOfLength(family.value, lengthMm.value, props.student.hand).fit
    : undefined,
)
const patternsThatAre = (state: MasteryState) =>
  marks.value.flatMap((mark) => {
    const pattern = mark.kind === 'pattern' && mark.state === state && patternWithId(family.value, mark.item)
    return pattern ? [stepsName(pattern)] : []
  })
const secure = computed(() => patternsThatAre('secure'))
const learning = computed(() => patternsThatAre('learning'))
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

.key {
  margin-left: 8px;
}

.note {
  padding-top: 8px;
  border-top: 1px solid var(--line);
  white-space: pre-line;
  overflow-wrap: anywhere;
}
</style>
