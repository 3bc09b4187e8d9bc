<template>
  <div class="line">
    <button
      type="button"
      class="what"
      :aria-expanded="isOpen"
      aria-controls="exercise-fields"
      @click="isOpen = !isOpen"
    >
      <strong>{{ played }}</strong>
      <span class="change">{{ isOpen ? 'done' : 'change' }}</span>
    </button>
    <KeyHint of="h" />
    <slot />
  </div>
  <div v-if="isOpen" id="exercise-fields" class="choices">
    <PlainSelect v-model="choice.kind" label="Exercise" :options="kinds" class="kind" />
    <template v-if="choice.kind === 'shape'">
      <ElSegmented v-model="stringIndex" :options="strings" aria-label="String" />
      <ChoiceSelect v-model="choice.shapeId" label="Hand shape" :options="shapes" class="shape" />
    </template>
    <ElSegmented
      v-else-if="choice.kind === 'fourth' || choice.kind === 'octave'"
      v-model="stringIndex"
      :options="lowerStrings"
      aria-label="The lower string"
    />
    <template v-else-if="choice.kind !== 'free'">
      <ChoiceSelect v-model="choice.keyId" label="Key" :options="keys" filterable class="key" />
      <template v-if="choice.kind === 'scale' || choice.kind === 'arpeggio'">
        <ElSegmented v-model="choice.octaves" :options="OCTAVES" aria-label="Octaves" />
        <ElSegmented
          v-if="techniqueOf(chosen.family.value.id).choosesOpenString"
          v-model="choice.openStrings"
          :options="OPEN_OR_FOURTH"
          aria-label="Fourth finger or open string"
        />
      </template>
      <template v-else>
        <ChoiceSelect
          v-if="choice.kind === 'drill'"
          v-model="choice.drillId"
          label="Drill"
          :options="drills"
          class="shape"
        />
        <ElSegmented v-if="!isAcross" v-model="stringIndex" :options="strings" aria-label="String" />
        <PlainSelect v-model="choice.positionId" label="Position" :options="positions" />
      </template>
    </template>
  </div>
  <p v-if="choice.kind === 'free'" class="soft free">
    Play what you like: every note is held against the likeliest string and finger. With an exercise chosen
    the hand is judged more surely.
  </p>
</template>

<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { drillsFor, keysOf, MODE_IDS, techniqueOf } from '#core'
import ChoiceSelect from '../../ui/ChoiceSelect.vue'
import PlainSelect from '../../ui/PlainSelect.vue'
import KeyHint from '../../ui/KeyHint.vue'
import { useShortcuts } from '../../ui/useShortcuts'
import { EXERCISE_KINDS, exerciseName } from '../../words/exercises'
import { noteLabel } from '../../words/notes'
import { drillName } from '../../words/drills'
import { keyName } from '../../words/keys'
import { shortPositionName } from '../../words/positions'
import { shapeName } from '../../words/trade'
import type { ExerciseKind } from '../../stores/exercise-choice'
import { draftExercise, type ChosenExercise } from './useExercise'

/** What is to be played: a hand on a string, a scale over the strings, a drill, or whatever comes. */
const { chosen } = defineProps<{ chosen: ChosenExercise }>()
const { choice } = chosen
const played = computed(() => exerciseName(draftExercise(chosen.exercise.value, chosen.tuning.value)))
/** One line says what is played; it opens to change it, and by itself where nothing can be played so. */
const isOpen = ref(false)
watch(chosen.fault, (fault) => fault && (isOpen.value = true), { immediate: true })
useShortcuts('What is played', [
  { key: 'h', does: 'Change what is played', run: () => (isOpen.value = !isOpen.value) },
])

/** Those that the strings have; the chosen one stays and says why it cannot. */
const kinds = computed(() =>
  Object.entries(EXERCISE_KINDS)
    .map(([value, label]) => ({ value: value as ExerciseKind, label }))
    .filter(
      ({ value: kind }) =>
        kind === choice.value.kind ||
        (kind !== 'fourth' && kind !== 'octave') ||
        chosen.playsOn({ kind, stringIndex: 0 }).length > 0,
    ),
)
const OCTAVES = [1, 2, 3].map((value) => ({ value, label: `${value} oct.` }))
const OPEN_OR_FOURTH = [
  { value: 'prefer', label: 'Open' },
  { value: 'avoid', label: '4th' },
]

const strings = computed(() =>
  chosen.tuning.value.map((open, value) => ({ value, label: noteLabel(open, { octave: false }) })),
)
/** Beside which there is another to match. */
const lowerStrings = computed(() => {
  const { kind } = choice.value
  if (kind !== 'fourth' && kind !== 'octave') return []
  const on = chosen.playsOn({ kind, stringIndex: 0 })
  return on.length > 0 ? strings.value.filter(({ value }) => on.includes(value)) : strings.value
})
const stringIndex = computed({
  get: () => {
    const { name } = chosen.exercise.value
    return Math.min(
      'stringIndex' in name ? name.stringIndex : choice.value.stringIndex,
      chosen.tuning.value.length - 1,
    )
  },
  set: (index) => (choice.value.stringIndex = index),
})
const shapes = computed(() =>
  chosen.family.value.shapes.map(({ id }) => ({ value: id, label: shapeName(id) })),
)
const keys = MODE_IDS.flatMap((mode) => keysOf(mode)).map((key) => ({ value: key.id, label: keyName(key) }))
const frame = computed(() => chosen.context.value.family.frames[chosen.context.value.frameIndex])
/** Those that this hand plays on some string, in this key and position; the chosen one stays and says why it cannot. */
const drills = computed(() => {
  const { kind, drillId: own, keyId, positionId } = choice.value
  return drillsFor(chosen.family.value.id)
    .filter(
      ({ id: drillId }) =>
        (kind === 'drill' && drillId === own) ||
        chosen.playsOn({ kind: 'drill', drillId, keyId, positionId, stringIndex: 0 }).length > 0,
    )
    .map(({ id }) => ({ value: id, label: drillName(id, frame.value) }))
})
/** Such a drill goes over all strings. */
const isAcross = computed(
  () =>
    choice.value.kind === 'drill' &&
    drillsFor(chosen.family.value.id).some(({ id, across }) => id === choice.value.drillId && across),
)
const positions = computed(() =>
  chosen.family.value.positions.map((p) => ({ value: p.id, label: shortPositionName(p) })),
)
// A drill or position of another family is none here.
watch(
  [drills, positions],
  () => {
    const all = drillsFor(chosen.family.value.id)
    if (!all.some(({ id }) => id === choice.value.drillId))
      choice.value.drillId = drills.value[0]?.value ?? all[0]!.id
    if (!positions.value.some(({ value }) => value === choice.value.positionId))
      choice.value.positionId = positions.value[1]!.value
  },
  { immediate: true },
)
</script>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
  margin-bottom: 4px;
}

.what {
  display: inline-flex;
  gap: 10px;
  align-items: baseline;
  border: 0;
  padding: 4px 0;
  background: none;
  color: var(--ink);
  font: 400 17px/1.3 var(--font-text);
  text-align: left;
  cursor: pointer;
}

.what strong {
  display: inline-block;
}

.what strong::first-letter {
  text-transform: uppercase;
}

.change {
  color: var(--jade);
  font-size: 15px;
  text-decoration: underline;
}

.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 10px;
  margin-bottom: 6px;
}

.kind {
  width: 138px;
}

.shape,
.key {
  width: 178px;
}

.free {
  margin: 4px 0 0;
}
</style>
