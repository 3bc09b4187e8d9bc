<template>
  <RouterView v-if="isBare" />
  <AppShell v-else-if="session">
    <template #lesson>
      <template v-if="lesson.student">
        <OneThing :student="lesson.student" is-narrow />
        <SomebodyElse />
      </template>
    </template>
    <PainMarked
      v-if="lesson.student?.pains.length && !SAYS_IT_ITSELF.includes(String(route.name))"
      :pains="lesson.student.pains"
      :student-id="lesson.student.id"
      :name="lesson.student.name"
    />
    <RouterView />
    <p v-if="route.matched.length === 0" class="on-its-way" role="status">The page is on its way.</p>
  </AppShell>
  <NoticeStack />
</template>

<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed, defineAsyncComponent, watch } from 'vue'
import { useRoute } from 'vue-router'
import OneThing from './features/lesson/OneThing.vue'
import SomebodyElse from './features/lesson/SomebodyElse.vue'
import AppShell from './features/shell/AppShell.vue'
import NoticeStack from './features/shell/NoticeStack.vue'
import { useLesson } from './stores/lesson'
import { useMastery } from './stores/mastery'
import { useFingerings } from './stores/fingerings'
import { useNotices } from './stores/notices'
import { useOutbox } from './stores/outbox'
import { useSession } from './stores/session'
import { useSettings } from './stores/settings'
import { useStudio } from './stores/studio'
import { useTheme } from './stores/theme'

/** Whoever is in the lesson and has a pain that is not cleared: it stands over every room, not in the setup alone. */
const PainMarked = defineAsyncComponent(() => import('./features/setup/PainMarked.vue'))
/** Rooms that have it where it belongs, or are about no student, or about many. */
const SAYS_IT_ITSELF = ['today', 'students', 'student', 'setup', 'setup-record', 'check', 'studio', 'account']

useTheme()
useSettings()
const route = useRoute()
const { session } = storeToRefs(useSession())
const outbox = useOutbox()
const studio = useStudio()
const lesson = useLesson()
const mastery = useMastery()
const fingerings = useFingerings()
const notices = useNotices()
/** No name stays on the page when its session has ended: the next to sign in may be of another studio. */
function forget() {
  studio.forget()
  mastery.forget()
  fingerings.forget()
  notices.clear()
}
watch(
  () => session.value?.user.id,
  (id) => (id === undefined ? forget() : outbox.resume()),
  { immediate: true },
)
// Rows that came through the outbox may have left the page before they arrived.
outbox.onArrival(() => {
  studio.noteSave()
  if (lesson.student) void studio.loadStudent(lesson.student.id)
})
const isBare = computed(() => route.meta['open'] === true)
</script>
