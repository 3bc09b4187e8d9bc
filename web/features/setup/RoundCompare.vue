<template>
  <section class="card rounds" aria-label="Rounds">
    <p class="eyebrow">{{ older ? 'The last two rounds, side by side' : 'The last round' }}</p>
    <table v-if="newest" class="ledger">
      <caption class="visually-hidden">
        What was answered
      </caption>
      <thead>
        <tr>
          <th scope="col">Item</th>
          <th v-for="round in shown" :key="round.id" scope="col">
            {{ shortDay(round.takenAt) }}<span class="by">{{ round.by }}</span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.id" :class="{ changed: row.isChanged }">
          <th scope="row" dir="auto">{{ row.name }}</th>
          <td v-for="(cell, index) in row.cells" :key="index">
            <template v-if="cell">
              <span :class="['answer', cell.answer]">{{ answerName(row.id, cell.answer) }}</span>
              <span v-if="cell.measured !== null" class="numbers measured">{{
                measuredWords(row.id, cell.measured)
              }}</span>
            </template>
            <span v-else class="soft">not asked</span>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="newest" class="soft small">
      {{ yes }} of {{ newest.answers.length }} right in the newest round<template v-if="newest.stoppedAt"
        >; it stopped at {{ nameOf(newest.stoppedAt) }}</template
      >.
    </p>
    <div v-if="measured.length" class="measures">
      <SetupPicture v-for="one in measured" :key="one.id" :figure="one.figure" tone="measured" />
    </div>
    <details v-if="rounds.length > 0">
      <summary>{{ count(rounds.length, 'round') }} in the file</summary>
      <ul>
        <li v-for="round in rounds" :key="round.id">
          <span>{{ shortDay(round.takenAt) }}</span>
          <span class="soft">{{
            round.stoppedAt ? `stopped at ${nameOf(round.stoppedAt)}` : 'all asked'
          }}</span>
          <ElButton
            text
            :aria-label="`Delete the round of ${shortDay(round.takenAt)}`"
            @click="emit('remove', round)"
            >Delete</ElButton
          >
        </li>
      </ul>
    </details>
  </section>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { isDrawnItem, setupFigure, type Schools } from '#core'
import type { SetupRound } from '#contracts'
import SetupPicture from '../../figure/SetupPicture.vue'
import { shortDay } from '../../words/dates'
import { count } from '../../words/numbers'
import { measuredWords } from '../../words/setup'
import { answerName, setupName } from '../../words/setup-names'

/** The newest round beside the one before: what changed, and what was measured. */
const props = defineProps<{ rounds: readonly SetupRound[]; schools: Schools; scale?: number }>()
const emit = defineEmits<{ remove: [round: SetupRound] }>()
const newest = computed(() => props.rounds[0])
const older = computed(() => props.rounds[1])
const shown = computed(() => [newest.value, older.value].filter((round) => round !== undefined))
const answerIn = (round: SetupRound | undefined, id: string) =>
  round?.answers.find(({ itemId }) => itemId === id)
const questionOf = (id: string) =>
  props.rounds.flatMap(({ answers }) => answers).find(({ itemId }) => itemId === id)?.question
const nameOf = (id: string) => setupName(id, questionOf(id))

/** What is not right in either, and what changed; all that was right twice says nothing. */
const rows = computed(() => {
  const ids = [...new Set(shown.value.flatMap(({ answers }) => answers.map(({ itemId }) => itemId)))]
  return ids
    .map((id) => {
      const cells = shown.value.map((round) => answerIn(round, id))
      const isChanged = cells.length > 1 && cells[0]?.answer !== cells[1]?.answer && cells.every(Boolean)
      return { id, name: nameOf(id), cells, isChanged }
    })
    .filter(({ cells }) => cells.some((cell) => cell && (cell.answer !== 'yes' || cell.measured !== null)))
})
const yes = computed(() => newest.value?.answers.filter(({ answer }) => answer === 'yes').length ?? 0)
const measured = computed(() =>
  (newest.value?.answers ?? []).flatMap(({ itemId, measured: value }) =>
    isDrawnItem(itemId) && value !== null && newest.value
      ? [
          {
            id: itemId,
            figure: setupFigure(itemId, {
              side: 'wrong',
              schools: props.schools,
              family: newest.value.family,
              measured: value,
              scale: props.scale,
            }),
          },
        ]
      : [],
  ),
)
</script>

<style scoped>
.rounds {
  display: grid;
  align-content: start;
  gap: 10px;
}

.by {
  display: block;
  font-weight: 400;
}

.answer {
  display: inline-block;
  min-width: 62px;
  padding: 1px 8px;
  border-radius: 4px;
  background: var(--jade-wash);
  color: var(--jade);
  font-size: 14px;
  font-weight: 600;
  text-align: center;
}

.answer.nearly {
  background: var(--brass-wash);
  color: var(--brass-ink);
}

.answer.no {
  background: var(--sharp-wash);
  color: var(--sharp);
}

.measured {
  margin-left: 8px;
}

tr.changed th {
  box-shadow: inset 3px 0 var(--brass);
}

.ledger tbody th {
  overflow-wrap: anywhere;
}

.measures {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: 10px;
}

.measures :deep(.picture) {
  padding: 8px 10px;
}

.measures :deep(.figure) {
  height: 150px;
}

.measures :deep(.says) {
  font-size: 15px;
}

summary {
  cursor: pointer;
  font-weight: 600;
}

ul {
  margin: 6px 0 0;
  padding: 0;
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr) auto;
  align-items: center;
  gap: 10px;
}

.small {
  font-size: 14.5px;
}
</style>
