<template>
  <section class="card" aria-label="Setup">
    <p class="eyebrow">Setup</p>
    <template v-if="student.setup">
      <p class="soft">
        Looked at on {{ shortDay(student.setup.takenAt)
        }}<template v-if="student.setup.stoppedAt">, stopped at {{ stoppedAt }}</template>
      </p>
      <ul v-if="shown.length">
        <li v-for="one in shown" :key="one.itemId">
          <span dir="auto">{{ setupName(one.itemId, one.question) }}</span>
          <span :class="['answer', one.answer]">{{ answerName(one.itemId, one.answer) }}</span>
          <span class="soft">since {{ shortDay(one.since) }}</span>
        </li>
      </ul>
      <p v-else>All that was asked stands as it should.</p>
      <p v-if="more > 0" class="soft">And {{ more }} more.</p>
    </template>
    <p v-else class="soft">Not looked at yet.</p>
    <p>
      <RouterLink :to="{ name: 'setup-record', params: { studentId: student.id } }"
        >Record, fit and gates</RouterLink
      >
      <KeyHint class="key" of="r" />
    </p>
  </section>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import type { Student } from '#contracts'
import KeyHint from '../../ui/KeyHint.vue'
import { shortDay } from '../../words/dates'
import { answerName, setupName } from '../../words/setup-names'

/** How the setup stands, in a few lines of the file. */
const props = defineProps<{ student: Student }>()
const MOST_SHOWN = 5
const standings = computed(() =>
  [...(props.student.setup?.standings ?? [])].sort(
    (a, b) => Number(a.answer === 'nearly') - Number(b.answer === 'nearly') || a.since.localeCompare(b.since),
  ),
)
const shown = computed(() => standings.value.slice(0, MOST_SHOWN))
const more = computed(() => standings.value.length - shown.value.length)
const stoppedAt = computed(() => {
  const id = props.student.setup?.stoppedAt ?? ''
  return setupName(id, standings.value.find(({ itemId }) => itemId === id)?.question)
})
</script>

<style scoped>
.card {
  display: grid;
  align-content: start;
  gap: 6px;
}

ul {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 10px;
  padding: 3px 0;
}

li .soft {
  grid-column: 1 / -1;
  font-size: 13.5px;
}

.answer {
  align-self: start;
  padding: 0 7px;
  border-radius: 4px;
  background: var(--brass-wash);
  color: var(--brass-ink);
  font-size: 13.5px;
  font-weight: 600;
}

.answer.no {
  background: var(--sharp-wash);
  color: var(--sharp);
}

.key {
  margin-left: 8px;
}
</style>
