<template>
  <template v-if="student">
    <header class="page-head">
      <h1 dir="auto">{{ student.name }}</h1>
      <p class="whose">{{ about }}</p>
      <div class="actions">
        <ElButton @click="isEditing = true">Change<KeyHint of="e" on-button /></ElButton>
        <ElButton @click="file.removeStudent()">Take off the roster</ElButton>
        <ElButton @click="goTo('patterns')">Patterns<KeyHint of="p" on-button /></ElButton>
        <ElButton @click="openPlan">Plan<KeyHint of="w" on-button /></ElButton>
        <ElButton @click="goTo('setup')">Setup<KeyHint of="s" on-button /></ElButton>
        <ElButton type="primary" :disabled="!student.instrument?.measurement" @click="goTo('check')">
          Check<KeyHint of="c" on-button />
        </ElButton>
      </div>
    </header>
    <PainMarked
      v-if="student.pains.length > 0"
      :pains="student.pains"
      :student-id="student.id"
      :name="student.name"
    />
    <div class="file">
      <aside>
        <InstrumentCard
          :student="student"
          @bench="goTo('tapes')"
          @take-back="file.lend(null)"
          @choose="isLending = true"
          @add="file.add"
        />
        <SetupCard :student="student" />
        <HandCard :student="student" />
        <RouterLink v-if="isOwner" class="soft" :to="{ name: 'people', query: { student: studentId } }"
          >Who saw and changed this file</RouterLink
        >
      </aside>
      <section class="card checks" aria-label="Checks">
        <OneThing :student="student" />
        <template v-if="checks?.length">
          <LandingChart v-if="heard.length > 1" :checks="heard" :tolerance-cents="student.toleranceCents" />
          <p class="heads">
            <span class="eyebrow">Checks, newest first</span>
            <span
              ><RouterLink :to="{ name: 'history', params: { studentId } }">Over time</RouterLink>
              <KeyHint of="o"
            /></span>
          </p>
          <CheckHistory
            :checks="checks"
            :standing="student.workingOn?.workOn"
            @remove="file.removeCheck"
            @decide="file.decide"
          />
          <ElButton v-if="file.hasOlder.value" text @click="file.readOlder">Older checks</ElButton>
        </template>
        <div v-else-if="checks" class="none">
          <h2>No checks yet</h2>
          <p v-if="student.instrument?.measurement">
            Press <KeyHint of="c" />, let {{ student.name }} play three fingers on one string, and type what
            the meter shows.
          </p>
          <p v-else-if="student.instrument">Measure the string first: press <KeyHint of="t" />.</p>
          <p v-else>Lend an instrument first, by <KeyHint of="l" />; its string length gives the places.</p>
        </div>
      </section>
    </div>
    <LendDialog v-model="isLending" :student="student" @lend="file.lend" />
    <StudentDialog v-model="isEditing" :student="student" @saved="studio.takeStudent" />
  </template>
</template>

<script setup lang="ts">
import { computed, ref, toRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useShortcuts } from '../ui/useShortcuts'
import CheckHistory from '../features/students/CheckHistory.vue'
import PainMarked from '../features/setup/PainMarked.vue'
import OneThing from '../features/lesson/OneThing.vue'
import SetupCard from '../features/students/SetupCard.vue'
import HandCard from '../features/students/HandCard.vue'
import InstrumentCard from '../features/students/InstrumentCard.vue'
import LendDialog from '../features/students/LendDialog.vue'
import LandingChart from '../features/students/LandingChart.vue'
import StudentDialog from '../features/students/StudentDialog.vue'
import { useStudentFile } from '../features/students/useStudentFile'
import { useLesson } from '../stores/lesson'
import { useSession } from '../stores/session'
import { useStudio } from '../stores/studio'
import KeyHint from '../ui/KeyHint.vue'
import { familyName } from '../words/trade'

const props = defineProps<{ studentId: string }>()
const route = useRoute()
const router = useRouter()
const studio = useStudio()
const lesson = useLesson()
const account = useSession()
const isOwner = computed(() => account.session?.user.role === 'owner')
const file = useStudentFile(toRef(props, 'studentId'))
const { student, checks } = file
/** Of one that can no longer be read only the verdict is left. */
const heard = computed(() => checks.value?.filter((check) => check.landings.length > 0) ?? [])
const isEditing = ref(false)
/** From Today, where an instrument is what the lesson needs first. */
const isLending = ref(false)
watch(
  () => route.query['lend'],
  (lend) => {
    if (lend === undefined) return
    isLending.value = true
    // Back, or a reload, does not ask again.
    void router.replace({ query: {} })
  },
  { immediate: true },
)
watch(
  () => props.studentId,
  () => (isLending.value = false),
)

const about = computed(() => {
  if (!student.value) return ''
  const { family, birthYear } = student.value
  const name = familyName(family)
  return birthYear === null ? name : `${name}, born ${birthYear}`
})

function goTo(room: 'check' | 'tapes' | 'patterns' | 'setup') {
  lesson.begin(props.studentId)
  void router.push({ name: room })
}

function openPlan() {
  void router.push({ name: 'plan', params: { studentId: props.studentId } })
}

useShortcuts('Student’s file', [
  { key: 'w', does: 'Plan the week’s practice', run: openPlan },
  { key: 'c', does: 'Check the hand', run: () => goTo('check') },
  { key: 't', does: 'Measure, and the tape bench', run: () => goTo('tapes') },
  { key: 'l', does: 'Lend an instrument', run: () => (isLending.value = true) },
  { key: 'p', does: 'Finger patterns', run: () => goTo('patterns') },
  {
    key: 'h',
    does: 'The hand: measures, growth, fit',
    run: () => void router.push({ name: 'hand', params: { studentId: props.studentId } }),
  },
  { key: 's', does: 'Go through the setup', run: () => goTo('setup') },
  {
    key: 'r',
    does: 'Setup record, fit and gates',
    run: () => void router.push({ name: 'setup-record', params: { studentId: props.studentId } }),
  },
  {
    key: 'o',
    does: 'Over time: bias, scatter, frame, drift',
    run: () => void router.push({ name: 'history', params: { studentId: props.studentId } }),
  },
  { key: 'e', does: 'Change the file', run: () => (isEditing.value = true) },
])
</script>

<style scoped>
h1 {
  overflow-wrap: anywhere;
}

.file {
  display: grid;
  grid-template-columns: 318px minmax(0, 1fr);
  align-items: start;
  gap: var(--gap);
}

aside {
  display: grid;
  gap: var(--gap);
}

.heads {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  margin: 6px 0 8px;
}

.heads span {
  display: inline-flex;
  gap: 8px;
  align-items: center;
}

.none {
  display: grid;
  gap: 8px;
  padding: 10px 4px;
}

@media (width <= 900px) {
  .file {
    grid-template-columns: minmax(0, 1fr);
  }

  aside {
    grid-template-columns: 1fr 1fr;
  }
}

@media (width <= 560px) {
  aside {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
