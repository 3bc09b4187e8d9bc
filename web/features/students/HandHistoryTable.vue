<template>
  <table class="ledger numbers history stacked">
    <thead>
      <tr>
        <th>Day</th>
        <th class="number">Comfortable</th>
        <th class="number">Reached</th>
        <th class="number">Fingertip</th>
        <th v-if="hasLengths">Fingers 1 to 4</th>
        <th>Thumb</th>
        <th>By</th>
        <th />
      </tr>
    </thead>
    <tbody>
      <tr v-for="hand in history" :key="hand.id">
        <td>{{ shortDay(hand.measuredOn) }}</td>
        <td class="number strong">{{ inUnit(hand.comfortableSpanMm) }}</td>
        <td
          class="number"
          data-label="reached"
          v-text="hand.reachedSpanMm === null ? '' : inUnit(hand.reachedSpanMm)"
        />
        <td
          class="number"
          data-label="fingertip"
          v-text="hand.fingertipWidthMm === null ? '' : inUnit(hand.fingertipWidthMm)"
        />
        <td v-if="hasLengths" data-label="fingers">{{ lengthsOf(hand) }}</td>
        <td data-label="thumb" v-text="hand.thumb === null ? '' : THUMB_NAMES[hand.thumb]" />
        <td>{{ hand.by }}</td>
        <td>
          <ElButton
            text
            size="small"
            :aria-label="`Delete the hand of ${shortDay(hand.measuredOn)}`"
            @click="emit('remove', hand)"
            >Delete</ElButton
          >
        </td>
      </tr>
    </tbody>
  </table>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import type { Thumb } from '#core'
import type { HandMeasurement } from '#contracts'
import { shortDay } from '../../words/dates'
import { inUnit } from '../../words/numbers'

const THUMB_NAMES: Record<Thumb, string> = { straight: 'straight', double_jointed: 'double-jointed' }

/** Every measurement of a hand, newest first. */
const props = defineProps<{ history: readonly HandMeasurement[] }>()
const emit = defineEmits<{ remove: [hand: HandMeasurement] }>()

const hasLengths = computed(() => props.history.some(({ fingerLengthsMm }) => fingerLengthsMm !== null))
/** `58.0 · 64.0 · – · 47.0` */
function lengthsOf({ fingerLengthsMm: lengths }: HandMeasurement): string {
  if (lengths === null) return ''
  return ([1, 2, 3, 4] as const).map((n) => (lengths[n] === undefined ? '–' : inUnit(lengths[n]))).join(' · ')
}
</script>

<style scoped>
.history td,
.history th {
  padding: 3px 6px;
  white-space: nowrap;
}

.strong {
  font-weight: 700;
}
</style>
