<template>
  <section class="card log" :aria-label="`What was practised, ${title}`">
    <p class="heads">
      <span class="eyebrow">{{ title }}</span>
      <span v-if="!log.isOver.value" class="ask" aria-live="polite">
        Did {{ longDayName(log.days.value[log.at.value]!.day) }}?
        <ElButton size="small" type="primary" @click="emit('say', true)"
          >Yes<KeyHint of="y" on-button
        /></ElButton>
        <ElButton size="small" @click="emit('say', false)">Not that day<KeyHint of="n" on-button /></ElButton>
        <ElButton size="small" @click="emit('exactly')">Exactly<KeyHint of="m" on-button /></ElButton>
      </span>
      <span v-else class="soft"
        >{{ sum }}
        <ElButton text size="small" @click="isShown = !isShown">{{
          isShown ? 'Hide' : 'Show'
        }}</ElButton></span
      >
    </p>
    <table v-if="isShown || !log.isOver.value" class="ledger">
      <thead>
        <tr>
          <td></td>
          <th
            v-for="({ day }, i) in log.days.value"
            :key="day"
            scope="col"
            :class="{ now: i === log.at.value }"
          >
            {{ dayName(day) }}
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="id in exercises" :key="id">
          <th scope="row">{{ practiceName(id) }}</th>
          <td v-for="({ day, cards }, i) in log.days.value" :key="day" :class="{ now: i === log.at.value }">
            <button
              v-if="cards.some((card) => card.exerciseId === id)"
              type="button"
              :class="['tick', { done: entry(day, id) }]"
              :aria-pressed="entry(day, id) !== undefined"
              :aria-label="`${practiceName(id)}, ${longDayName(day)}`"
              @click="
                emit(
                  'toggle',
                  day,
                  cards.find((card) => card.exerciseId === id)!,
                )
              "
            >
              {{ entry(day, id) ? said(entry(day, id)!) : '' }}
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Plan, PracticeEntry } from '#contracts'
import KeyHint from '../../ui/KeyHint.vue'
import { dayName, longDayName } from '../../words/dates'
import { practiceName } from '../../words/plan'
import { practisedSum } from '../../words/plan-log'
import type { PracticeLog } from './useLog'

/** What was done of a plan that is running, or over: a day with a key, an exercise with a click. */
const props = defineProps<{ log: PracticeLog; title: string }>()
const emit = defineEmits<{
  say: [isDone: boolean]
  exactly: []
  toggle: [day: string, card: Plan['cards'][number]]
}>()
/** Once all is said it is one line. */
const isShown = ref(false)
const exercises = computed(() => [
  ...new Set(props.log.days.value.flatMap(({ cards }) => cards.map(({ exerciseId }) => exerciseId))),
])
const entry = (day: string, id: string) => props.log.entryOf(day, id)
function said({ minutes, times }: PracticeEntry): string {
  return minutes !== null ? String(minutes) : times !== null ? `${times}×` : '✓'
}
const sum = computed(() => {
  const entries = props.log.days.value.flatMap(({ day, cards }) =>
    cards.flatMap(({ exerciseId }) => entry(day, exerciseId) ?? []),
  )
  return practisedSum(entries)
})
</script>

<style scoped>
.log {
  margin-bottom: var(--gap);
  padding-block: 9px;
}

.heads {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 4px 14px;
  min-height: 30px;
}

.ask {
  display: inline-flex;
  align-items: center;
  gap: 8px;
  font-weight: 600;
}

.ask .el-button + .el-button {
  margin: 0;
}

.ledger tbody th,
.ledger td {
  padding: 2px 8px;
}

.ledger tbody th {
  font-weight: 500;
  width: 190px;
}

.ledger thead th {
  text-align: center;
  padding: 2px 8px;
}

.ledger td {
  text-align: center;
}

.now {
  background: var(--jade-wash);
}

.tick {
  width: 34px;
  height: 26px;
  border: 1.5px solid var(--line-strong);
  border-radius: 5px;
  background: var(--card);
  color: var(--ink);
  font: 600 14px/1 var(--font-text);
  cursor: pointer;
}

.tick.done {
  border-color: var(--jade);
  background: var(--jade);
  color: var(--on-jade);
}

@media (width <= 560px) {
  .ledger tbody th,
  .ledger td,
  .ledger thead th {
    padding-inline: 2px;
  }

  .ledger tbody th {
    width: auto;
    font-size: 14px;
  }
}
</style>
