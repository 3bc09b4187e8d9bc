<template>
  <ul class="people">
    <li v-for="one in people" :key="one.id" :class="{ left: one.leftAt }">
      <div>
        <p>
          <strong dir="auto">{{ one.name }}</strong>
          <span class="soft">{{ roleOf(one) }}</span>
        </p>
        <p class="soft small" dir="auto">{{ one.email }}</p>
        <p class="soft small">{{ standingOf(one) }}</p>
      </div>
      <div v-if="!one.isSelf" class="acts">
        <template v-if="one.leftAt">
          <ElButton
            :aria-label="`Let ${one.name} teach here again`"
            @click="emit('change', one, { hasLeft: false })"
            >Let in again</ElButton
          >
        </template>
        <template v-else>
          <ElButton :aria-label="`A key for ${one.name}`" @click="emit('key', one)">Give a key</ElButton>
          <ElButton
            :aria-label="
              one.role === 'owner' ? `${one.name} is a teacher only` : `${one.name} is an owner too`
            "
            @click="emit('change', one, { role: one.role === 'owner' ? 'teacher' : 'owner' })"
            >{{ one.role === 'owner' ? 'Owner no more' : 'Make an owner' }}</ElButton
          >
          <ElButton :aria-label="`${one.name} has left`" @click="emit('change', one, { hasLeft: true })"
            >Has left</ElButton
          >
        </template>
      </div>
    </li>
  </ul>
</template>

<script setup lang="ts">
import type { Person, PersonChange } from '#contracts'
import { dayAndTime, shortDay } from '../../words/dates'

defineProps<{ people: readonly Person[] }>()
const emit = defineEmits<{ key: [person: Person]; change: [person: Person, change: PersonChange] }>()

function roleOf({ role, isSelf }: Person): string {
  return `${role === 'owner' ? 'owner' : 'teacher'}${isSelf ? ', you' : ''}`
}

function standingOf({ leftAt, hasPassword, keyUntil, seenAt, hasSecondFactor }: Person): string {
  if (leftAt) return `Left ${shortDay(leftAt)}; what was written stays.`
  const key = keyUntil === null ? '' : `A key opens until ${dayAndTime(keyUntil)}. `
  if (!hasPassword) return `${key || 'No key is open. '}Has not come in yet.`
  const seen = seenAt === null ? 'Signed in nowhere' : `Last seen ${dayAndTime(seenAt)}`
  return `${key}${seen}${hasSecondFactor ? ', with a second factor' : ''}.`
}
</script>

<style scoped>
.people {
  list-style: none;
  margin: 0;
  padding: 0;
}

li {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 6px 16px;
  padding: 10px 0;
  border-bottom: 1px solid var(--line);
}

.left strong {
  font-weight: 400;
}

p {
  margin: 0;
  overflow-wrap: anywhere;
}

strong {
  margin-right: 8px;
}

.small {
  font-size: 14.5px;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}

.acts .el-button {
  margin: 0;
}
</style>
