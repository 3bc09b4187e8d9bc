<template>
  <div class="week" role="group" :aria-label="label">
    <section
      v-for="({ day, isPractice }, column) in days"
      :key="day"
      :class="['day', { rest: !isPractice, today: day === today, over: day < today }]"
      :aria-label="longDayName(day)"
    >
      <header>
        <button
          type="button"
          class="name"
          :aria-pressed="isPractice"
          :title="isPractice ? 'Make it a day of rest' : 'Make it a day of practice'"
          @click="emit('toggleDay', day)"
        >
          <b>{{ dayName(day) }}</b> {{ dayNumeral(day) }}
        </button>
        <span class="sum numbers">{{ isPractice ? `${minutesOn(day)} min` : 'rest' }}</span>
      </header>
      <ul :ref="(el) => columnOf(el, day)" :data-day="day">
        <li
          v-for="(card, row) in cardsOn(day)"
          :key="card.exerciseId"
          :class="[
            'item',
            shown.exercises.of(card.exerciseId).part,
            { chosen: isChosen(column, row), fixed: card.isFixed },
          ]"
          :aria-current="isChosen(column, row)"
          :data-exercise="card.exerciseId"
          @click="emit('choose', column, row)"
        >
          <span class="what">{{ practiceName(card.exerciseId) }}</span>
          <span class="how numbers" :title="`${card.minutes} minutes`"
            ><small v-if="card.isFixed && day >= today">set </small>{{ card.minutes }}</span
          >
        </li>
      </ul>
    </section>
  </div>
</template>

<script setup lang="ts">
import Sortable from 'sortablejs'
import { onBeforeUnmount, type ComponentPublicInstance } from 'vue'
import type { PlannedCard } from '#core'
import { practiceName } from '../../words/plan'
import { dayName, dayNumeral, longDayName } from '../../words/dates'
import { shown, studioDay } from '../../words/shown'

/** A week of practice: days as columns, exercises as cards that are dragged from day to day. */
const props = defineProps<{
  label: string
  days: readonly { readonly day: string; readonly isPractice: boolean }[]
  cards: readonly PlannedCard[]
  chosen: { readonly column: number; readonly row: number }
}>()
const emit = defineEmits<{
  choose: [column: number, row: number]
  move: [card: PlannedCard, day: string]
  toggleDay: [day: string]
}>()
const today = studioDay()
const cardsOn = (day: string) => props.cards.filter(({ on }) => on === day)
const minutesOn = (day: string) => cardsOn(day).reduce((sum, { minutes }) => sum + minutes, 0)
const isChosen = (column: number, row: number) => props.chosen.column === column && props.chosen.row === row

const columns = new Map<string, Sortable>()
function columnOf(el: Element | ComponentPublicInstance | null, day: string) {
  if (!(el instanceof HTMLElement) || columns.get(day)?.el === el) return
  columns.get(day)?.destroy()
  columns.set(
    day,
    Sortable.create(el, {
      group: 'days',
      draggable: '.item',
      sort: false,
      animation: 0,
      onEnd({ item, from, to, oldDraggableIndex = 0 }) {
        // The page draws the cards: what was dragged goes back, and is drawn where it belongs.
        from.insertBefore(item, from.querySelectorAll('.item')[oldDraggableIndex] ?? null)
        const card = props.cards.find(
          (one) => one.on === from.dataset['day'] && one.exerciseId === item.dataset['exercise'],
        )
        if (card && to.dataset['day'] !== undefined) emit('move', card, to.dataset['day'])
      },
    }),
  )
}
onBeforeUnmount(() => columns.forEach((column) => column.destroy()))
</script>

<style scoped>
.week {
  display: grid;
  grid-template-columns: repeat(7, minmax(0, 1fr));
  gap: 6px;
}

.day {
  display: grid;
  grid-template-rows: auto 1fr;
  min-height: 190px;
  border: 1px solid var(--line);
  border-radius: 8px;
  background: var(--card-sunk);
}

.day.rest {
  background: none;
  border-style: dashed;
}

.day.today {
  border-color: var(--jade);
}

header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 4px;
  padding: 5px 7px;
}

.name {
  border: 0;
  padding: 0;
  background: none;
  color: var(--ink);
  font: 400 15px/1.3 var(--font-text);
  cursor: pointer;
}

.sum {
  color: var(--ink-soft);
  font-size: 13px;
}

ul {
  display: grid;
  align-content: start;
  gap: 5px;
  margin: 0;
  padding: 0 5px 8px;
  list-style: none;
}

.item {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px;
  padding: 5px 7px;
  border: 1px solid var(--line);
  border-left: 4px solid var(--part, var(--line-strong));
  border-radius: 6px;
  background: var(--card);
  cursor: grab;
  line-height: 1.25;
}

.item.chosen {
  outline: 2.5px solid var(--focus);
  outline-offset: 0;
}

.item.fixed {
  background: var(--brass-wash);
}

.over .item {
  background: none;
}

.release {
  --part: var(--brass);
}

.hold {
  --part: var(--flat);
}

.frame,
.aim {
  --part: var(--jade);
}

.patterns {
  --part: var(--sharp);
}

.what {
  font-weight: 600;
  font-size: 14.5px;
  overflow-wrap: anywhere;
}

.how {
  color: var(--ink-soft);
  font-size: 13.5px;
}

/* A narrow page has the days below each other, each with its cards beside each other. */
@media (width <= 900px) {
  .week {
    grid-template-columns: minmax(0, 1fr);
  }

  .day {
    grid-template-columns: 110px minmax(0, 1fr);
    grid-template-rows: auto;
    min-height: 44px;
  }

  header {
    display: grid;
    align-content: start;
  }

  ul {
    display: flex;
    flex-wrap: wrap;
    padding: 5px;
  }
}
</style>
