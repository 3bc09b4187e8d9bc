<template>
  <div class="schools">
    <div v-for="question in questions" :key="question" class="school">
      <FieldRow :label="QUESTION_NAMES[question]">
        <PlainSelect
          :label="QUESTION_NAMES[question]"
          :options="optionsOf(question)"
          :model-value="chosen[question] ?? USUAL"
          @update:model-value="(choice) => choose(question, choice)"
        />
      </FieldRow>
      <p class="for">{{ wordsOf(question).isFor }}</p>
      <p class="soft">{{ wordsOf(question).otherwise }}</p>
    </div>
  </div>
</template>

<script setup lang="ts">
import {
  SCHOOL_QUESTIONS,
  type SchoolQuestion,
  type Schools,
  type SomeSchools,
  type SchoolChoice,
} from '#core'
import FieldRow from '../../ui/FieldRow.vue'
import PlainSelect from '../../ui/PlainSelect.vue'
import { QUESTION_NAMES, schoolWords, type SchoolWords } from '../../words/schools'

/** What teachers disagree on: each choice with what it is for, and when another serves better. */
const props = defineProps<{
  questions: readonly SchoolQuestion[]
  /** What is chosen here; the others follow. */
  chosen: SomeSchools
  /** What holds. */
  schools: Schools
  /** What is followed where nothing is chosen here, as in “as the studio”. */
  usual: (question: SchoolQuestion) => string
}>()
const emit = defineEmits<{ choose: [question: SchoolQuestion, choice: string | undefined] }>()
const USUAL = 'usual'

function optionsOf(question: SchoolQuestion) {
  return [
    { value: USUAL, label: props.usual(question) },
    ...SCHOOL_QUESTIONS[question].choices.map((value: SchoolChoice) => ({
      value,
      label: schoolWords(question, value as never).name,
    })),
  ]
}

function wordsOf(question: SchoolQuestion): SchoolWords {
  return schoolWords(question, props.schools[question])
}

function choose(question: SchoolQuestion, choice: string) {
  emit('choose', question, choice === USUAL ? undefined : choice)
}
</script>

<style scoped>
.schools {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
  gap: 14px 22px;
}

.school {
  display: grid;
  align-content: start;
  gap: 2px;
}

.for,
.soft {
  font-size: 14.5px;
  line-height: 1.35;
}
</style>
