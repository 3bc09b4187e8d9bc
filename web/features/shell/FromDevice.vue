<template>
  <p v-if="fromDeviceSince" class="from-device" role="status">
    <strong>The server is away.</strong> You see what it said {{ when }}.
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
  margin: 0 14px 10px 20px;
  color: var(--rail-brass);
  font-size: 14.5px;
  line-height: 1.3;
}

@media (width <= 900px) {
  .from-device {
    flex: 1 0 100%;
    order: 3;
    margin: 0;
    padding: 4px 14px 8px;
  }
}
</style>
