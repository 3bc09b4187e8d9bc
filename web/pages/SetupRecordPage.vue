<template>
  <template v-if="student">
    <header class="page-head">
      <h1 dir="auto">
        <RouterLink :to="{ name: 'student', params: { studentId } }">{{ student.name }}</RouterLink>
      </h1>
      <p class="whose">setup, fit and gates</p>
      <div class="actions">
        <ElButton type="primary" @click="goTo('setup')"
          >Go through the setup<KeyHint of="s" on-button
        /></ElButton>
        <ElButton @click="goTo('check')">Check<KeyHint of="c" on-button /></ElButton>
      </div>
    </header>
    <PainMarked
      v-if="student.pains.length"
      :pains="student.pains"
      :student-id="student.id"
      :name="student.name"
    />
    <p v-for="conflict in file.conflicts.value" :key="conflict.code" class="conflict" role="note">
      <b>Two settings stand against each other.</b> {{ CONFLICT_WORDS[conflict.code] }}
    </p>
    <div class="two">
      <div class="column">
        <RoundCompare
          v-if="file.rounds.value?.length"
          :rounds="file.rounds.value"
          :schools="schools"
          :scale="scaleOf(student)"
          @remove="file.removeRound"
        />
        <section v-else-if="file.isKnown.value" class="card empty">
          <h2>No setup looked at yet</h2>
          <p>Press <KeyHint of="s" />: a minute beside {{ student.name }}, before a note is judged.</p>
        </section>
        <PainHistory
          v-if="file.pains.value"
          :pains="file.pains.value"
          @mark="file.markPain"
          @remove="file.removePain"
        />
      </div>
      <GatesCard :gates="file.gates.value" @say="file.sayOfGate" />
    </div>
    <BodyFitCard
      v-if="file.fits.value"
      class="block"
      :family="student.family"
      :fits="file.fits.value"
      @keep="file.keepFit"
      @remove="file.removeFit"
    />
    <section class="card block" aria-label="Schools">
      <p class="eyebrow">How {{ student.name }} is taught, where it differs from the studio</p>
      <SchoolFields
        :questions="questions"
        :chosen="student.schools"
        :schools="schools"
        :usual="asStudio"
        @choose="file.chooseSchool"
      />
      <p class="soft">
        Tapes and tuning system: in the student’s file, by <KeyHint of="e" />. The studio’s own schools are in
        <RouterLink :to="{ name: 'studio' }">Studio</RouterLink>.
      </p>
    </section>
  </template>
</template>

<script setup lang="ts">
import { computed, toRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { questionsOf, type SchoolQuestion } from '#core'
import BodyFitCard from '../features/setup/BodyFitCard.vue'
import GatesCard from '../features/setup/GatesCard.vue'
import PainHistory from '../features/setup/PainHistory.vue'
import PainMarked from '../features/setup/PainMarked.vue'
import RoundCompare from '../features/setup/RoundCompare.vue'
import SchoolFields from '../features/setup/SchoolFields.vue'
import { scaleOf } from '../features/setup/scale'
import { useSetupFile } from '../features/setup/useSetupFile'
import { useLesson } from '../stores/lesson'
import { useSettings } from '../stores/settings'
import { useStudio } from '../stores/studio'
import KeyHint from '../ui/KeyHint.vue'
import { useShortcuts } from '../ui/useShortcuts'
import { CONFLICT_WORDS, schoolWords } from '../words/schools'

const props = defineProps<{ studentId: string }>()
const router = useRouter()
const studio = useStudio()
const lesson = useLesson()
const settings = useSettings()
const student = computed(() => studio.student(props.studentId))
const file = useSetupFile(toRef(props, 'studentId'), student)
watch(
  () => props.studentId,
  (id) => void (student.value ?? studio.loadStudent(id)),
  { immediate: true },
)

const schools = computed(() => settings.schoolsOf(student.value))
/** How many tapes is said in the student’s file, by the row of them. */
const questions = computed(() =>
  questionsOf(student.value?.family ?? 'violin').filter((question) => question !== 'tapes'),
)
function asStudio(question: SchoolQuestion): string {
  return `As the studio: ${schoolWords(question, settings.schoolsOf()[question]).name}`
}

function goTo(room: 'setup' | 'check') {
  lesson.begin(props.studentId)
  void router.push({ name: room })
}
useShortcuts('Setup record', [
  { key: 's', does: 'Go through the setup', run: () => goTo('setup') },
  { key: 'c', does: 'Check the hand', run: () => goTo('check') },
  {
    key: 'e',
    does: 'The student’s file',
    run: () => void router.push({ name: 'student', params: { studentId: props.studentId } }),
  },
])
</script>

<style scoped>
h1 a {
  color: inherit;
  text-decoration: none;
}

.two {
  display: grid;
  grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr);
  align-items: start;
  gap: var(--gap);
}

.column {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--gap);
}

.block {
  display: grid;
  gap: 10px;
  margin-top: var(--gap);
}

.conflict {
  margin-bottom: 12px;
  padding: 10px 16px;
  border: 1px solid var(--brass);
  border-left-width: 5px;
  border-radius: var(--radius);
  background: var(--brass-wash);
  color: var(--brass-ink);
}

@media (width <= 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
