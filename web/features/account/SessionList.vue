<template>
  <ul v-if="sessions" class="sessions">
    <li v-for="one in sessions" :key="one.id">
      <p>
        <strong>{{ DEVICE_NAMES[one.device] }}</strong>
        <span class="soft">
          {{ one.isThis ? 'this one' : `last used ${dayAndTime(one.seenAt)}` }}
        </span>
      </p>
      <p class="soft small">Signed in {{ shortDay(one.since) }}, ends by {{ shortDay(one.endsAt) }}.</p>
      <ElButton
        v-if="!one.isThis"
        :aria-label="`End the session of ${dayAndTime(one.since)} on ${DEVICE_NAMES[one.device].toLowerCase()}`"
        @click="emit('end', one)"
        >End it</ElButton
      >
    </li>
  </ul>
</template>

<script setup lang="ts">
import type { OpenSession } from '#contracts'
import { dayAndTime, shortDay } from '../../words/dates'

defineProps<{ sessions: readonly OpenSession[] | undefined }>()
const emit = defineEmits<{ end: [session: OpenSession] }>()

const DEVICE_NAMES: Record<OpenSession['device'], string> = {
  computer: 'A computer',
  tablet: 'A tablet',
  phone: 'A phone',
  unknown: 'Something unknown',
}
</script>

<style scoped>
.sessions {
  list-style: none;
  margin: 0;
  padding: 0;
}

li {
  display: grid;
  grid-template: auto auto / minmax(0, 1fr) auto;
  align-items: center;
  gap: 2px 16px;
  padding: 10px 0;
  border-bottom: 1px solid var(--line);
}

p {
  grid-column: 1;
  margin: 0;
}

strong {
  margin-right: 8px;
}

.small {
  font-size: 14.5px;
}

li :deep(.el-button) {
  grid-area: 1 / 2 / 3 / 3;
}
</style>
