<template>
  <p v-if="looked === undefined || looked < total" class="soft" role="status">
    Looking through {{ total === 0 ? 'the files' : `${looked ?? 0} of ${total} files` }} …
  </p>
  <table v-if="rows.length > 0" class="ledger numbers">
    <thead>
      <tr>
        <th scope="col">Exercise</th>
        <th scope="col">Given for</th>
        <th scope="col" class="number">Gone when looked at later</th>
        <th scope="col" class="number">Part of all such hands</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="`${row.exerciseId} ${row.reason}`">
        <th scope="row">{{ practiceName(row.exerciseId) }}</th>
        <td>{{ reasonName(row.reason) }}</td>
        <td class="number"><b>{{ row.mended }}</b> of {{ row.tried }}</td>
        <td class="number">{{ percent(row.low) }} to {{ percent(row.high) }} %</td>
      </tr>
    </tbody>
  </table>
  <p v-else-if="looked !== undefined && looked >= total" class="soft">
    Nothing can be counted yet. An exercise has to be practised on three days, and looked at again after it.
  </p>
  <p v-if="rows.length > 0" class="soft">
    This half year: what was there no more when it was looked at after the exercise. Hands mend by themselves
    too, and other things may be the cause. This counts; it does not say why.
  </p>
</template>

<script setup lang="ts">
import { computed, onScopeDispose, ref, shallowRef } from 'vue'
import { mendInterval, SETUP_REASON } from '#core'
import type { Answer } from '#contracts'
import { call } from '../../api/client'
import { practiceName } from '../../words/plan'
import { setupName } from '../../words/setup-names'
import { TOLD } from '../../words/verdict'

/** How often each exercise was followed by its mend, in the whole studio; read file by file, a page at a time. */
type Count = Answer<'practice.mends'>['counts'][number]

const PAGE = 50
const total = ref(0)
/** Files that were looked through so far; undefined before the first answer. */
const looked = ref<number>()
const counts = shallowRef<ReadonlyMap<string, Count>>(new Map())
let isOver = false
onScopeDispose(() => (isOver = true))

async function lookThrough() {
  for (let offset = 0; !isOver && (offset === 0 || offset < total.value); offset += PAGE) {
    const page = await call('practice.mends', { query: { offset, limit: PAGE } })
    total.value = page.total
    const sum = new Map(counts.value)
    for (const one of page.counts) {
      const id = `${one.exerciseId} ${one.reason}`
      const known = sum.get(id)
      sum.set(id, {
        ...one,
        tried: one.tried + (known?.tried ?? 0),
        mended: one.mended + (known?.mended ?? 0),
      })
    }
    counts.value = sum
    looked.value = Math.min(offset + PAGE, page.total)
  }
}
void lookThrough()

const rows = computed(() =>
  [...counts.value.values()]
    .sort((a, b) => b.tried - a.tried)
    .map((row) => {
      const [low, high] = mendInterval(row)
      return { ...row, low, high }
    }),
)
function reasonName(reason: string): string {
  if (!reason.startsWith(SETUP_REASON)) return TOLD[reason] ?? reason
  const name = setupName(reason.slice(SETUP_REASON.length))
  return `${name.charAt(0).toUpperCase()}${name.slice(1)}`
}
const percent = (part: number) => Math.round(100 * part)
</script>

<style scoped>
.ledger {
  margin: 10px 0;
}

.ledger td,
.ledger tbody th {
  padding: 6px 8px;
}

@media (width <= 560px) {
  .ledger :is(th, td) {
    padding: 4px;
    font-size: 14px;
    white-space: normal;
  }
}
</style>
