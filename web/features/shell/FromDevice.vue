<template>
  <p v-if="fromDeviceSince" class="from-device" role="status">
    <strong>The server is not reached.</strong>
    <span>You see what was here {{ when }}. What you keep now is sent later.</span>
  </p>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { fromDeviceSince } from '../../api/client'
import { shortDay } from '../../words/dates'

/** Whoever looks at what this device remembers is told so, and from when it is. */
const when = computed(() => {
  const since = fromDeviceSince.value ?? new Date()
  const time = since.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
  const isToday = since.toDateString() === new Date().toDateString()
  return isToday ? `at ${time}` : `on ${shortDay(since.toISOString().slice(0, 10))} at ${time}`
})
</script>

<style scoped>
.from-device {
  display: grid;
  gap: 4px;
  margin: 8px 8px 0;
  padding: 10px 12px;
  border: 1px solid var(--rail-brass);
  border-radius: 10px;
  background: var(--rail-lit);
  color: var(--rail-ink);
  font-size: 14.5px;
  line-height: 1.3;
}
</style>
