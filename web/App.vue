<template>
  <RouterView v-if="isBare" />
  <AppShell v-else-if="session">
    <RouterView />
  </AppShell>
  <NoticeStack />
</template>

<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed, watch } from 'vue'
import { useRoute } from 'vue-router'
import AppShell from './features/shell/AppShell.vue'
import NoticeStack from './features/shell/NoticeStack.vue'
import { useMastery } from './stores/mastery'
import { useNotices } from './stores/notices'
import { useOutbox } from './stores/outbox'
import { useSession } from './stores/session'
import { useStudio } from './stores/studio'
import { useTheme } from './stores/theme'

useTheme()
const route = useRoute()
const { session } = storeToRefs(useSession())
const outbox = useOutbox()
const studio = useStudio()
const mastery = useMastery()
const notices = useNotices()
/** No name stays on the page when its session has ended: the next to sign in may be of another studio. */
function forget() {
  studio.forget()
  mastery.forget()
  notices.clear()
}
watch(
  () => session.value?.user.id,
  (id) => (id === undefined ? forget() : outbox.resume()),
  { immediate: true },
)
outbox.onArrival(() => void studio.loadStudents())
const isBare = computed(() => route.meta['open'] === true)
</script>
