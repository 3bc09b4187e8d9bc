<template>
  <div v-if="rows.length > 0" class="counts">
    <p class="eyebrow">What was told in a year, and what you said to it</p>
    <table class="ledger">
      <thead>
        <tr>
          <th scope="col">Told</th>
          <th scope="col" class="number">within</th>
          <th scope="col" class="number wide">times</th>
          <th scope="col" class="number">accepted</th>
          <th scope="col" class="number">overruled</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="`${row.told} ${row.toleranceCents}`">
          <th scope="row">{{ TOLD[row.told] ?? row.told }}</th>
          <td class="number soft">{{ row.toleranceCents }}</td>
          <td class="number wide">{{ row.count }}</td>
          <td class="number">{{ row.accepted || '' }}</td>
          <td class="number" :class="{ often: isOften(row) }">{{ row.overruled || '' }}</td>
        </tr>
      </tbody>
    </table>
    <p v-for="sentence in advice" :key="sentence" class="soft">{{ sentence }}</p>
  </div>
</template>

<script setup lang="ts">
import { rollups, sum } from 'd3-array'
import { computed, shallowRef } from 'vue'
import type { VerdictCounts } from '#contracts'
import { ApiProblem, call } from '../../api/client'
import { count } from '../../words/numbers'
import { TOLD } from '../../words/verdict'

type Row = VerdictCounts[number]

/** Kinds that were never answered say nothing of a tolerance. */
const counts = shallowRef<VerdictCounts>([])
void call('checks.counts', {}).then(
  (all) => (counts.value = all),
  (error: unknown) => {
    // The tolerances can be set without them.
    if (!(error instanceof ApiProblem && error.isPassing)) throw error
  },
)
const rows = computed(() => counts.value.filter(({ accepted, overruled }) => accepted + overruled > 0))

/** Overruled as often as not is worth a look. */
const isOften = ({ accepted, overruled }: Row) => overruled > 1 && overruled >= accepted

/** What the counts say of the tolerances themselves. */
const advice = computed(() =>
  rollups(
    rows.value,
    (own) => sum(own, ({ tooStrict }) => tooStrict),
    ({ toleranceCents }) => toleranceCents,
  ).flatMap(([toleranceCents, tooStrict]) =>
    tooStrict > 0
      ? [
          `Within ${toleranceCents} cents ${count(tooStrict, 'verdict')} ${tooStrict === 1 ? 'was' : 'were'} overruled as too strict.`,
        ]
      : [],
  ),
)
</script>

<style scoped>
.counts {
  margin-top: 12px;
}

th[scope='row'] {
  font-weight: 400;
}

td,
th {
  padding: 4px 8px;
}

/* On a phone: what was told, and what became of it. */
@media (width <= 560px) {
  td,
  th {
    padding: 4px;
    font-size: 14px;
  }

  .wide {
    display: none;
  }
}

.often {
  color: var(--brass-ink);
  font-weight: 700;
}
</style>
