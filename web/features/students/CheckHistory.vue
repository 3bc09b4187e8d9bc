<template>
  <ol class="history">
    <li v-for="check in checks" :key="check.id">
      <time :datetime="check.takenAt">{{ shortDay(check.takenAt) }}</time>
      <div>
        <p class="sentence">{{ verdictSentence(check.verdict) }}</p>
        <p class="soft">
          {{ stringName(check.string) }} string, {{ shapeName(check.shapeId).toLowerCase() }} ·
          <span v-for="landing in landingsOf(check, family)" :key="landing.finger" class="landing numbers">
            <b>{{ landing.finger }}</b> {{ signedCents(landing.cents) }}
          </span>
          · {{ count(check.readings.length, 'note') }}, {{ check.by }}
        </p>
      </div>
      <ElButton
        text
        :aria-label="`Take out the check of ${shortDay(check.takenAt)}`"
        @click="emit('remove', check)"
        >Take out</ElButton
      >
    </li>
  </ol>
</template>

<script setup lang="ts">
import type { FamilyId } from '#core'
import type { Check } from '#contracts'
import { shortDay } from '../../words/dates'
import { count, signedCents } from '../../words/numbers'
import { shapeName } from '../../words/trade'
import { verdictSentence } from '../../words/verdict'
import { landingsOf } from './landings'

defineProps<{ checks: readonly Check[]; family: FamilyId }>()
const emit = defineEmits<{ remove: [check: Check] }>()

function stringName(open: string): string {
  return open.replace(/-?\d$/, '')
}
</script>

<style scoped>
.history {
  list-style: none;
  margin: 0;
  padding: 0;
}

li {
  display: grid;
  grid-template-columns: 104px minmax(0, 1fr) auto;
  gap: 12px;
  padding: 10px 0;
  border-top: 1px solid var(--line);
}

time {
  font-weight: 600;
  font-variant-numeric: tabular-nums;
}

.sentence {
  font: 500 18px/1.3 var(--font-title);
}

.soft {
  font-size: 14.5px;
}

.landing {
  margin-right: 8px;
  white-space: nowrap;
}

.landing b {
  color: var(--ink);
}
</style>
