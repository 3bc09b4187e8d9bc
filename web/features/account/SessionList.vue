<template>
  <table v-if="sessions" class="ledger">
    <thead>
      <tr>
        <th scope="col">On</th>
        <th scope="col">Signed in</th>
        <th scope="col">Last used</th>
        <th scope="col">Ends by</th>
        <th scope="col"><span class="visually-hidden">End it</span></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="one in sessions" :key="one.id">
        <th scope="row">{{ DEVICE_NAMES[one.device] }}</th>
        <td>{{ shortDay(one.since) }}</td>
        <td>{{ one.isThis ? 'now' : dayAndTime(one.seenAt) }}</td>
        <td>{{ shortDay(one.endsAt) }}</td>
        <td class="acts">
          <span v-if="one.isThis" class="soft">this one</span>
          <ElButton
            v-else
            text
            :aria-label="`End the session on ${DEVICE_NAMES[one.device]} of ${shortDay(one.since)}`"
            @click="emit('end', one)"
            >End it</ElButton
          >
        </td>
      </tr>
    </tbody>
  </table>
</template>

<script setup lang="ts">
import type { OpenSession } from '#contracts'
import { dayAndTime, shortDay } from '../../words/dates'

defineProps<{ sessions: readonly OpenSession[] | undefined }>()
const emit = defineEmits<{ end: [session: OpenSession] }>()

const DEVICE_NAMES: Record<OpenSession['device'], string> = {
  computer: 'a computer',
  tablet: 'a tablet',
  phone: 'a phone',
  unknown: 'something unknown',
}
</script>

<style scoped>
th[scope='row'] {
  font-weight: 600;
}

.acts {
  text-align: right;
}
</style>
