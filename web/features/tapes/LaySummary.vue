<template>
  <section class="step">
    <h1 aria-live="polite">{{ laid.length ? `${count(laid.length, 'tape')} laid.` : 'No tape laid.' }}</h1>
    <table v-if="laid.length" class="ledger sum">
      <tbody>
        <tr v-for="{ mark, placeMm } in summary" :key="mark.id">
          <th scope="row">{{ markName(mark) }}</th>
          <td class="number big">{{ length(placeMm) }}</td>
          <td class="soft number">{{ signedLength(placeMm - mark.middleMm) }} from computed</td>
        </tr>
      </tbody>
    </table>
    <p v-if="rungCount > 0" class="soft">
      {{ rungCount === 1 ? 'One place' : `${rungCount} places` }} rang elsewhere than computed: kept as found
      by ring, {{ rungCount === 1 ? 'it corrects' : 'they correct' }} the other places of this instrument.
    </p>
    <p class="do">Tapes guide; the ear decides. Play each once more with the bow and listen for its ring.</p>
    <FieldRow v-if="bench.instrument?.tapes.length" label="Why they are laid again, for the log">
      <template #default="{ id }">
        <ElInput :id="id" v-model="reason" maxlength="400" placeholder="new strings; the last one came off" />
      </template>
    </FieldRow>
    <p v-if="!bench.instrument" class="soft">
      No instrument of the studio is on the bench, so there is no log to keep this in.
    </p>
    <div class="go">
      <ElButton size="large" @click="emit('back')">Back<KeyHint of="b" on-button /></ElButton>
      <ElButton
        v-if="bench.instrument"
        type="primary"
        size="large"
        :disabled="laid.length === 0 || isSaving"
        @click="emit('log')"
      >
        Log as laid on {{ bench.instrument.label }}<KeyHint of="Enter" on-button />
      </ElButton>
      <ElButton v-else type="primary" size="large" @click="emit('done')"
        >Done<KeyHint of="Enter" on-button
      /></ElButton>
    </div>
  </section>
</template>

<script setup lang="ts">
import type { TapeMark } from '#core'
import { useBench } from '../../stores/bench'
import FieldRow from '../../ui/FieldRow.vue'
import { count, length, signedLength } from '../../words/numbers'
import { markName } from '../../words/trade'
import type { LaidTape } from './useKeepOnInstrument'
import KeyHint from '../../ui/KeyHint.vue'

/** After the last tape: what was laid where, and what becomes of it. */
defineProps<{
  laid: readonly LaidTape[]
  summary: readonly { readonly mark: TapeMark; readonly placeMm: number }[]
  /** Tapes that rang elsewhere than computed. */
  rungCount: number
  isSaving: boolean
}>()
const emit = defineEmits<{ back: []; log: []; done: [] }>()
const reason = defineModel<string>('reason', { required: true })
const bench = useBench()
</script>

<style scoped>
h1 {
  font-size: 54px;
}

.sum {
  width: auto;
  min-width: 420px;
}

.sum .big {
  color: var(--jade);
  font-size: 26px;
  font-weight: 700;
}

.sum th {
  font-size: 17px;
  color: var(--ink);
}
</style>
