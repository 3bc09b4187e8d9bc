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
import { useOutbox } from './stores/outbox'
import { useSession } from './stores/session'
import { useStudio } from './stores/studio'
import { useTheme } from './stores/theme'

useTheme()
const route = useRoute()
const { session } = storeToRefs(useSession())
const outbox = useOutbox()
// Once it is known who is signed in, what an earlier page left is sent; what is shown follows.
watch(
  () => session.value?.user.id,
  (id) => id !== undefined && outbox.resume(),
  { immediate: true },
)
outbox.onArrival(() => void useStudio().loadStudents())
const isBare = computed(() => route.meta['open'] === true)
</script>
