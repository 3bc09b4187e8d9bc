<template>
  <section class="card" aria-label="Hand">
    <p class="eyebrow">Hand</p>
    <dl>
      <dt>In tune within</dt>
      <dd>{{ student.toleranceCents }} cents</dd>
      <dt>Tapes</dt>
      <dd>{{ schoolName(settings.tapeSchoolId(student.family, student)) }}</dd>
      <template v-if="student.system">
        <dt>Tuned by</dt>
        <dd>{{ shortSystemName(student.system) }}</dd>
      </template>
      <template v-for="frame in frames" :key="frame.id">
        <dt>{{ frame.title }}</dt>
        <dd>{{ length(frame.widthMm) }}, first position</dd>
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
      <template v-if="student.soundConsent">
        <dt>Sound may be kept</dt>
        <dd>{{ student.soundConsent.by }}, {{ shortDay(student.soundConsent.on) }}</dd>
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
      <KeyHint class="key" of="h" />
    </p>
    <p v-if="student.note" class="note" dir="auto">{{ student.note }}</p>
  </section>
</template>

<script setup lang="ts">
import { computed, toRef } from 'vue'
import { familyOf, firstPositionWidthMm, fitOfInstrument, patternWithId, type MasteryState } from '#core'
import type { Student } from '#contracts'
import { useMasteryOf } from '../../stores/mastery'
import { useSettings } from '../../stores/settings'
import { useStudio } from '../../stores/studio'
import { studioStringing } from '../../stores/stringing'
import KeyHint from '../../ui/KeyHint.vue'
import { shortDay } from '../../words/dates'
import { length, mm } from '../../words/numbers'
import { FIT_NAMES } from '../../words/hand-fit'
import { FRAME_TITLES, stepsName } from '../../words/patterns'
import { schoolName, shortSystemName, sizeName, WEEKDAYS } from '../../words/trade'

const props = defineProps<{ student: Student }>()
const studio = useStudio()
const settings = useSettings()
const { marks } = useMasteryOf(toRef(props, 'student'))
const family = computed(() => familyOf(props.student.family))
/** Undefined until the strings are measured. */
const stringing = computed(() => {
  const { instrument } = props.student
  if (!instrument?.measurement) return undefined
  return studioStringing(instrument, studio.systemOf(instrument, props.student))
})
const frames = computed(() => {
  const strings = stringing.value
  return strings
    ? strings.family.frames.map((frame) => ({
        id: frame.id,
        title: FRAME_TITLES[frame.id] ?? frame.id,
        widthMm: firstPositionWidthMm(strings, frame),
      }))
    : []
})
const span = computed(() => {
  const { hand } = props.student
  if (!hand) return 'not measured'
  return hand.reachedSpanMm === null
    ? `${length(hand.comfortableSpanMm)}`
    : `${mm(hand.comfortableSpanMm)}, reached ${length(hand.reachedSpanMm)}`
})
const fit = computed(() =>
  props.student.hand && stringing.value
    ? fitOfInstrument(stringing.value, props.student.hand).fit
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
