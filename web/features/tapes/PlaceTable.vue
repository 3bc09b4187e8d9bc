<template>
  <table class="ledger">
    <thead>
      <tr>
        <th scope="col">Tape</th>
        <th scope="col" class="number">near edge</th>
        <th scope="col" class="number">middle</th>
        <th scope="col" class="number">far edge</th>
        <th scope="col" class="number">tape’s width</th>
        <th scope="col">notes</th>
        <th scope="col" class="number">worst string</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="mark in marks" :key="`${mark.shapeId}-${mark.finger}`">
        <th scope="row">
          {{ shortFingerName(mark.finger) }}<span v-if="mark.shapeId === 'half'" class="soft"> half</span>
        </th>
        <td class="number">{{ mm(mark.nearEdgeMm) }}</td>
        <td class="number middle">{{ mm(mark.middleMm) }}</td>
        <td class="number">{{ mm(mark.farEdgeMm) }}</td>
        <td class="number">{{ Math.round(mark.widthCents) }} cents</td>
        <td class="notes">{{ mark.strings.map((s) => noteName(s.note, { octave: false })).join(' ') }}</td>
        <td class="number">
          {{ noteName(mark.worst.open, { octave: false }) }} {{ signedCents(mark.worst.remainderCents) }} c
        </td>
      </tr>
    </tbody>
  </table>
</template>

<script setup lang="ts">
import { noteName, type TapeMark } from '#core'
import { mm, signedCents } from '../../words/numbers'
import { shortFingerName } from '../../words/trade'

defineProps<{ marks: readonly TapeMark[] }>()
</script>

<style scoped>
th[scope='row'] {
  color: var(--ink);
  font-size: 16px;
  border-bottom: 1px solid var(--line);
}

.middle {
  color: var(--jade);
  font-size: 26px;
  font-weight: 700;
  line-height: 1.1;
}

.notes {
  letter-spacing: 0.04em;
  white-space: nowrap;
}
</style>
