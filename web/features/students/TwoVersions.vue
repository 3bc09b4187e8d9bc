<template>
  <section class="two" role="alert" aria-label="Two versions">
    <p>
      <strong>Somebody changed this file meanwhile.</strong>
      {{
        differences.length > 0
          ? 'Both of you changed this: choose, and save.'
          : 'What they changed stands below, with what you typed: save again.'
      }}
    </p>
    <table v-if="differences.length > 0" class="ledger">
      <thead>
        <tr>
          <th></th>
          <th>Yours</th>
          <th>Theirs</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="{ field, mine, theirs, chosen } in differences" :key="field">
          <th scope="row">{{ FIELD_NAMES[field] }}</th>
          <td v-for="[whose, value] in [['mine', mine] as const, ['theirs', theirs] as const]" :key="whose">
            <button
              type="button"
              :aria-pressed="chosen === whose"
              :aria-label="`${FIELD_NAMES[field]}, ${whose === 'mine' ? 'yours' : 'theirs'}: ${words(field, value)}`"
              dir="auto"
              @click="emit('choose', field, whose)"
            >
              {{ words(field, value) || 'nothing' }}
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <ElButton @click="emit('theirs')">Take all of theirs</ElButton>
  </section>
</template>

<script setup lang="ts">
import type { Difference, FileField } from './useStudentForm'

/** What two teachers made of one file at the same time, side by side: nothing is guessed. */
defineProps<{
  differences: readonly Difference[]
  words: (field: FileField, value: string | number) => string
}>()
const emit = defineEmits<{ choose: [field: FileField, whose: 'mine' | 'theirs']; theirs: [] }>()

const FIELD_NAMES: Record<FileField, string> = {
  name: 'Name',
  birthYear: 'Born in',
  family: 'Instrument',
  within: 'In tune within',
  tapeSchoolId: 'Tapes',
  system: 'Tune by',
  weekday: 'Lesson',
  time: 'At',
  consentBy: 'Consent to sound',
  consentOn: 'Consent given on',
  note: 'Note',
}
</script>

<style scoped>
.two {
  display: grid;
  gap: 8px;
  justify-items: start;
  padding: 12px 14px;
  border-radius: 8px;
  background: var(--brass-wash);
  color: var(--ink);
}

.two p {
  margin: 0;
}

td button {
  width: 100%;
  padding: 6px 10px;
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  background: var(--card);
  color: inherit;
  font: inherit;
  text-align: start;
  overflow-wrap: anywhere;
  cursor: pointer;
}

td button[aria-pressed='true'] {
  border-color: var(--jade);
  box-shadow: inset 0 0 0 1px var(--jade);
  font-weight: 600;
}
</style>
