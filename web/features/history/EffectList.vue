<template>
  <section v-if="effects.length > 0" class="effects" aria-label="Whether it helped">
    <p class="eyebrow">What practice came with</p>
    <ul>
      <li v-for="one in effects" :key="one.exerciseId">
        <b>{{ practiceName(one.exerciseId) }}</b>
        <span class="soft">{{ ` since ${shortDay(one.since)}, ${count(one.times, 'time')}` }}</span>
        <p>{{ effectSentence(one.effect, one.unit === 'mm' ? (v) => length(v) : (v) => cents(v)) }}</p>
      </li>
    </ul>
    <p class="soft small">
      Numbers of the checks since it began. What else changed meanwhile may be the cause: this does not say.
    </p>
  </section>
</template>

<script setup lang="ts">
import { shortDay } from '../../words/dates'
import { count, length } from '../../words/numbers'
import { effectSentence, practiceName } from '../../words/plan'
import type { PracticeEffect } from './practice'

/** For each exercise what its number did while it was practised, or that it is too early to say. */
defineProps<{ effects: readonly PracticeEffect[] }>()
const cents = (value: number) => count(Math.round(value), 'cent')
</script>

<style scoped>
.effects {
  display: grid;
  gap: 5px;
  margin-top: 8px;
}

ul {
  display: grid;
  gap: 6px;
  margin: 0;
  padding: 0;
  list-style: none;
}

.small {
  font-size: 13.5px;
}
</style>
