<template>
  <table class="ledger">
    <caption class="visually-hidden">
      Named rightly, by kind of fault
    </caption>
    <thead>
      <tr>
        <th scope="col">Fault</th>
        <th scope="col" class="number">hidden</th>
        <th scope="col" class="number">you</th>
        <th scope="col" class="number">the tool</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.id">
        <th scope="row">{{ row.name }}</th>
        <td class="number">{{ row.asked }}</td>
        <td class="number">{{ row.right }}</td>
        <td class="number">{{ row.tool }}</td>
      </tr>
      <tr class="all">
        <th scope="row">All</th>
        <td class="number">{{ total.asked }}</td>
        <td class="number">{{ total.right }}</td>
        <td class="number">{{ total.tool }}</td>
      </tr>
    </tbody>
  </table>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import type { CaseId } from '#core'
import { CASE_NAMES } from '../../words/cases'
import type { EyeScore, EyeScores } from './useEyeTrainer'

const props = defineProps<{ scores: EyeScores; total: EyeScore }>()
const rows = computed(() =>
  Object.entries(props.scores).map(([id, score]) => ({ id, name: CASE_NAMES[id as CaseId] ?? id, ...score })),
)
</script>

<style scoped>
th[scope='row'] {
  font-weight: 400;
}

.all th,
.all td {
  font-weight: 700;
}
</style>
