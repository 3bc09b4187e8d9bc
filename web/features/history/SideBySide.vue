<template>
  <section class="card" aria-label="Two checks side by side">
    <div class="choose">
      <label
        ><span class="soft">┄ earlier</span>
        <ChoiceSelect v-model="earlierId" label="The earlier check" :options="options" class="which"
      /></label>
      <label
        ><span class="soft">● later</span>
        <ChoiceSelect v-model="laterId" label="The later check" :options="options" class="which"
      /></label>
    </div>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <template v-else-if="both && pair">
      <StringBoard
        :stringing="both.stringing"
        label="Both checks on one board: the earlier dashed, the later full"
        :before="both.before"
        :landings="both.after"
        :targets="targets"
        aim-only
      />
      <p v-if="both.isMoved" class="soft">
        The strings were others then: its cents are laid on those of the later check.
      </p>
      <div class="said">
        <p v-for="check in pair" :key="check.id">
          <time class="numbers">{{ shortDay(check.takenAt) }}</time> {{ checkSentence(check) }}
          <span v-if="check.rejudged" class="soft rejudged">{{ rejudgedSentence(check) }}</span>
        </p>
      </div>
      <div class="scroll">
        <table class="ledger">
          <thead>
            <tr>
              <th scope="col">Finger</th>
              <th scope="col" class="number">{{ shortDay(pair[0].takenAt) }}</th>
              <th scope="col" class="number">{{ shortDay(pair[1].takenAt) }}</th>
              <th scope="col" class="number">change, cents</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in both.rows" :key="row.id">
              <th scope="row">
                <b>{{ fingerSign(row.finger) }}</b> {{ noteLabel(row.note, { octave: false }) }}
              </th>
              <td class="number">{{ row.earlier ? landedWords(row.earlier) : '' }}</td>
              <td class="number">{{ row.later ? landedWords(row.later) : '' }}</td>
              <td class="number">
                {{ row.earlier && row.later ? signedCents(row.later.meanCents - row.earlier.meanCents) : '' }}
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
    <p v-else-if="pair" class="soft">One of the two can no longer be read: only its verdict is kept.</p>
  </section>
</template>

<script setup lang="ts">
import { fingerSign } from '../../words/fingers'
import { computed, ref } from 'vue'
import type { LandedPlace } from '#core'
import type { PastCheck } from '#contracts'
import { call } from '../../api/client'
import { useLoaded } from '../../api/useLoaded'
import StringBoard from '../../board/StringBoard.vue'
import ChoiceSelect from '../../ui/ChoiceSelect.vue'
import { shortDay } from '../../words/dates'
import { exerciseName } from '../../words/exercises'
import { noteLabel } from '../../words/notes'
import { signedCents, signedLength } from '../../words/numbers'
import { checkSentence, rejudgedSentence } from '../../words/verdict'
import { sideBySide } from './side-by-side'

const props = defineProps<{ checks: readonly PastCheck[] }>()
const earlierId = defineModel<string>('earlier', { required: true })
const laterId = defineModel<string>('later', { required: true })

const options = computed(() =>
  [...props.checks].reverse().map(({ id, takenAt, exercise }) => ({
    value: id,
    label: exercise ? `${shortDay(takenAt)}, ${exerciseName(exercise)}` : shortDay(takenAt),
  })),
)

const fault = ref('')
async function read(checkId: string) {
  fault.value = ''
  try {
    return await call('checks.read', { params: { checkId } })
  } catch (error) {
    fault.value = error instanceof Error ? error.message : 'The check could not be fetched.'
    throw error
  }
}
const loaded = useLoaded(
  () => `${earlierId.value} ${laterId.value}`,
  (ids) => Promise.all(ids.split(' ').map(read)).catch(() => undefined),
)
const pair = computed(() => {
  const [earlier, later] = loaded.data.value ?? []
  return earlier && later ? ([earlier, later] as const) : undefined
})
const both = computed(() => pair.value && sideBySide(...pair.value))
const targets = computed(() =>
  (both.value?.after ?? []).map(({ stringIndex, finger, targetMm }) => ({
    stringIndex,
    finger,
    placeMm: targetMm,
    note: '',
  })),
)

function landedWords({ meanCents, meanMm, landings }: LandedPlace): string {
  return `${signedCents(meanCents)} (${signedLength(meanMm)}, ${landings.length}×)`
}
</script>

<style scoped>
.choose {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 22px;
}

.choose label {
  display: grid;
  grid-template-columns: 70px minmax(0, 1fr);
  align-items: center;
  width: 100%;
}

.said {
  display: grid;
  gap: 4px;
  margin: 8px 0;
}

.said p {
  margin: 0;
}

.said time {
  font-weight: 600;
}

.rejudged {
  display: block;
}
</style>
