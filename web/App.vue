<template>
  <RouterView v-if="isBare" />
  <AppShell v-else-if="session">
    <RouterView />
  </AppShell>
  <NoticeStack />
</template>

<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import AppShell from './features/shell/AppShell.vue'
import NoticeStack from './features/shell/NoticeStack.vue'
import { useSession } from './stores/session'
import { useTheme } from './stores/theme'

useTheme()
const route = useRoute()
const { session } = storeToRefs(useSession())
const isBare = computed(() => route.meta['open'] === true)
</script>
