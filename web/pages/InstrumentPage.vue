<template>
  <template v-if="instrument">
    <header class="page-head">
      <h1 dir="auto">{{ instrument.label }}</h1>
      <p class="whose">
        {{ instrumentKind(instrument.family, instrument.sizeId) }}, {{ instrument.tuning.join(' ') }} ·
        <RouterLink
          v-if="instrument.holder"
          :to="{ name: 'student', params: { studentId: instrument.holder.studentId } }"
          >{{ instrument.holder.name }}</RouterLink
        >
        <template v-else>{{
          instrument.removedAt === null ? 'in the cupboard' : 'taken out of the cupboard'
        }}</template>
      </p>
      <div class="actions">
        <ElButton v-if="instrument.removedAt !== null" type="primary" @click="cupboard.putBack(instrument.id)"
          >Put it back<KeyHint of="u" on-button
        /></ElButton>
        <ElButton v-else :disabled="instrument.holder !== null" @click="cupboard.takeOut(instrument.id)"
          >Take out of the cupboard</ElButton
        >
        <ElButton @click="router.push({ name: 'compare', query: { from: instrument.id } })">
          Change of size<KeyHint of="m" on-button />
        </ElButton>
        <ElButton type="primary" @click="bench">Tape bench<KeyHint of="t" on-button /></ElButton>
      </div>
    </header>
    <div class="facts">
      <section class="card now" aria-label="Now">
        <p class="eyebrow">Now</p>
        <p class="length numbers">
          <template v-if="instrument.measurement"
            >{{ inUnit(instrument.measurement.lengthMm) }}<small>{{ ` ${unitName()}` }}</small></template
          >
          <template v-else><small>not measured yet</small></template>
        </p>
        <p v-if="instrument.measurement" class="soft small">
          measured {{ shortDay(instrument.measurement.measuredOn) }} by {{ instrument.measurement.by }}
        </p>
        <ul class="tapes">
          <li v-for="tape in instrument.tapes" :key="tape.markId">
            <strong>{{ log.nameOf(tape.markId) }}</strong>
            <span class="numbers">{{ length(tape.placeMm) }}</span>
            <span v-if="hasCrept(tape)" class="crept">
              crept {{ signedLength(creepMm(tape)) }} {{ creepMm(tape) > 0 ? '▲' : '▼' }}
            </span>
          </li>
        </ul>
        <p v-if="instrument.tapes.length === 0" class="soft">No tapes lie on it.</p>
        <p v-for="due in dues" :key="due" class="heed">{{ due }}</p>
        <ElCheckbox :model-value="instrument.warmHands" @change="log.setWarmHands(Boolean($event))">
          Warm hands: look every three weeks
        </ElCheckbox>
      </section>
      <section class="card" aria-label="Timeline">
        <TapeTimeline
          v-if="log.events.value?.length"
          :events="log.events.value"
          :family="instrument.family"
          :today="today"
        />
        <div v-else class="empty">
          <h2>Nothing has happened yet</h2>
          <p class="soft">
            Measure the string and lay tapes on the bench, or write down what lies there already.
          </p>
        </div>
      </section>
    </div>
    <section class="card log" aria-label="Log">
      <LogForm :key="instrument.id" :log="log" :instrument="instrument" />
      <table v-if="log.events.value?.length" class="ledger stacked">
        <thead>
          <tr>
            <th scope="col">on</th>
            <th scope="col">what</th>
            <th scope="col">which</th>
            <th scope="col" class="number">at, {{ unitName() }}</th>
            <th scope="col">why</th>
            <th scope="col">by</th>
            <th scope="col"><span class="visually-hidden">take back</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="event in newestFirst" :key="event.id">
            <td class="day">{{ shortDay(event.on) }}</td>
            <td>
              <strong :class="{ crept: event.kind === 'crept' }">{{ EVENT_NAMES[event.kind] }}</strong>
            </td>
            <td v-text="event.markId ? log.nameOf(event.markId) : ''" />
            <td
              class="number"
              :data-label="`at, ${unitName()}`"
              v-text="event.placeMm === null ? '' : inUnit(event.placeMm)"
            />
            <td v-text="event.reason" />
            <td class="soft">{{ event.by }}</td>
            <td>
              <button
                type="button"
                class="back"
                :aria-label="`Take back: ${EVENT_NAMES[event.kind]}, ${shortDay(event.on)}`"
                @click="log.takeBack(event)"
              >
                Take back
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <TableExport v-if="log.events.value?.length" :table="table" />
    </section>
  </template>
  <p v-else-if="isMissing" class="empty">There is no such instrument in this studio.</p>
</template>

<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { creepMm, hasCrept, tapesDue } from '#core'
import { ApiProblem } from '../api/client'
import { useOutOfCupboard } from '../features/instruments/useOutOfCupboard'
import LogForm from '../features/log/LogForm.vue'
import TapeTimeline from '../features/log/TapeTimeline.vue'
import { useTapeLog } from '../features/log/useTapeLog'
import { useShortcuts } from '../ui/useShortcuts'
import TableExport from '../files/TableExport.vue'
import type { DataTable } from '../files/tables'
import { useBench } from '../stores/bench'
import { useSettings } from '../stores/settings'
import { useStudio } from '../stores/studio'
import { shortDay } from '../words/dates'
import { dueWords } from '../words/due'
import { inUnit, length, signedLength, unitName } from '../words/numbers'
import { EVENT_NAMES, instrumentKind } from '../words/trade'
import KeyHint from '../ui/KeyHint.vue'
import { studioDay } from '../words/shown'

const props = defineProps<{ instrumentId: string }>()
const router = useRouter()
const studio = useStudio()
const settings = useSettings()
const onBench = useBench()
const today = studioDay()
const isMissing = ref(false)

const instrument = computed(() => studio.instrument(props.instrumentId))
watch(
  () => props.instrumentId,
  async (id) => {
    isMissing.value = false
    try {
      if (!studio.instrument(id)) await studio.loadInstrument(id)
    } catch (error) {
      if (!(error instanceof ApiProblem && error.code === 'not_found')) throw error
      isMissing.value = props.instrumentId === id
    }
  },
  { immediate: true },
)
const log = useTapeLog(instrument)
const newestFirst = computed(() => [...(log.events.value ?? [])].reverse())
const dues = computed(() => {
  const words = instrument.value ? tapesDue(today, instrument.value, settings.intervals).map(dueWords) : []
  return [...new Set(words)]
})

const cupboard = useOutOfCupboard()
const isOut = () => instrument.value !== undefined && instrument.value.removedAt !== null

async function bench() {
  await onBench.choose(props.instrumentId)
  await router.push({ name: 'tapes' })
}
useShortcuts('Instrument', [
  { key: 't', does: 'Tape bench', run: () => void bench() },
  {
    key: 'u',
    does: 'Put it back into the cupboard',
    run: () => isOut() && void cupboard.putBack(props.instrumentId),
  },
  {
    key: 'm',
    does: 'Change of size',
    run: () => void router.push({ name: 'compare', query: { from: props.instrumentId } }),
  },
])

const table = computed<DataTable>(() => ({
  name: `tape-log-${instrument.value?.label ?? ''}`,
  columns: ['on', 'what', 'tape', 'at mm', 'why', 'by'],
  rows: (log.events.value ?? []).map((e) => [
    e.on,
    EVENT_NAMES[e.kind],
    e.markId ? log.nameOf(e.markId) : '',
    e.placeMm,
    e.reason,
    e.by,
  ]),
}))
</script>

<style scoped>
.facts {
  display: grid;
  grid-template-columns: 290px minmax(0, 1fr);
  gap: var(--gap);
  margin-bottom: var(--gap);
}

.now {
  display: grid;
  align-content: start;
  gap: 7px;
}

.length {
  font: 700 38px/1.1 var(--font-text);
  color: var(--jade);
}

.length small {
  font-size: 17px;
  font-weight: 500;
}

.small {
  font-size: 14.5px;
}

.tapes {
  list-style: none;
  margin: 0;
  padding: 0;
}

.tapes li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
  font-size: 16px;
}

.crept {
  color: var(--sharp);
  font-weight: 700;
}

.log {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  overflow-x: auto;
  gap: 14px;
}

.day {
  white-space: nowrap;
}

.back {
  border: 0;
  padding: 3px 8px;
  border-radius: 5px;
  background: none;
  color: var(--ink-soft);
  font: 600 14px var(--font-text);
  white-space: nowrap;
  cursor: pointer;
}

.back:hover,
.back:focus-visible {
  background: var(--jade-wash);
  color: var(--jade);
}

@media (width <= 900px) {
  .facts {
    grid-template-columns: minmax(0, 1fr);
  }

  .log {
    overflow-x: auto;
  }
}
</style>
