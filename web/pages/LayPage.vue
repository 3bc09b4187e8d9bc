<template>
  <div class="stand">
    <header>
      <p class="whose">{{ whose }}</p>
      <p class="numbers soft">
        {{
          lay.isOver.value
            ? 'done'
            : lay.at.value < 0
              ? 'before you begin'
              : `tape ${lay.at.value + 1} of ${marks.length}`
        }}
      </p>
      <ElButton @click="leave">Leave<kbd class="on-button">Esc</kbd></ElButton>
    </header>

    <section v-if="lay.at.value < 0" class="step" aria-live="polite">
      <h1>Tune first.</h1>
      <p class="do">Every later step is void on an untuned instrument.</p>
      <ul>
        <li>Cut {{ listed(pieces) }} mm of tape, off the instrument: never with a blade on the board.</li>
        <li>A thin, narrow tape; a thick one changes the pitch. Try its glue on a place nobody sees.</li>
        <li>Slide it under the tuned strings, sticky side down, and move it until the note rings.</li>
        <li>Small cuttings away from small children. Red or itching skin: take the tape off.</li>
      </ul>
      <div class="go">
        <ElButton type="primary" size="large" @click="lay.next()"
          >Begin<kbd class="on-button">⏎</kbd></ElButton
        >
      </div>
    </section>

    <section v-else-if="lay.mark.value && lay.step.value" class="step" aria-live="polite">
      <p class="name">{{ markName(lay.mark.value) }}</p>
      <p class="figure numbers">{{ mm(lay.step.value.foundMm) }}<small> mm</small></p>
      <p class="from soft numbers">
        <template v-if="Math.abs(lay.step.value.foundMm - lay.mark.value.middleMm) < 0.06">
          from the nut to the tape’s middle; edges {{ mm(lay.mark.value.nearEdgeMm) }} and
          {{ mm(lay.mark.value.farEdgeMm) }}
        </template>
        <template v-else>
          computed {{ mm(lay.mark.value.middleMm) }}, found
          {{ signedMm(lay.step.value.foundMm - lay.mark.value.middleMm) }} mm from it
        </template>
      </p>
      <p class="do">{{ playWords }}</p>
      <div class="found" role="group" aria-label="Found at">
        <ElButton size="large" aria-label="Half a millimetre towards the nut" @click="lay.nudge(-COARSE_MM)"
          >−0.5</ElButton
        >
        <ElButton size="large" aria-label="A tenth towards the nut" @click="lay.nudge(-FINE_MM)"
          >−0.1</ElButton
        >
        <label class="visually-hidden" for="found-at">Found at, mm</label>
        <input
          id="found-at"
          v-model="typed"
          class="numbers"
          inputmode="decimal"
          maxlength="12"
          :placeholder="mm(lay.step.value.foundMm)"
          :aria-invalid="isUnreadable"
          @keydown.enter.stop.prevent="take"
          @blur="take"
        />
        <ElButton size="large" aria-label="A tenth towards the bridge" @click="lay.nudge(FINE_MM)"
          >+0.1</ElButton
        >
        <ElButton size="large" aria-label="Half a millimetre towards the bridge" @click="lay.nudge(COARSE_MM)"
          >+0.5</ElButton
        >
        <ElButton
          v-if="best"
          size="large"
          :aria-pressed="tone.sounding.value === best.play"
          @click="toggleTone"
        >
          {{ tone.sounding.value === best.play ? '■' : '▶' }} {{ best.play }}<kbd class="on-button">T</kbd>
        </ElButton>
      </div>
      <p v-if="isUnreadable" class="fault" role="alert">
        “{{ typed }}” is no place on this string: type mm from the nut, as in
        {{ mm(lay.mark.value.middleMm) }}.
      </p>
      <div class="checks">
        <ElCheckbox v-model="lay.step.value.isSquared" size="large">
          squared to the strings<kbd class="on-button">S</kbd>
        </ElCheckbox>
        <ElCheckbox v-model="lay.step.value.isWrapped" size="large">
          pressed and wrapped round the neck<kbd class="on-button">W</kbd>
        </ElCheckbox>
      </div>
      <div class="go">
        <ElButton size="large" @click="lay.back()">Back<kbd class="on-button">B</kbd></ElButton>
        <ElButton size="large" @click="lay.skip()">Leave this one off</ElButton>
        <ElButton type="primary" size="large" :disabled="!lay.canGoOn.value" @click="lay.next()">
          Next<kbd class="on-button">⏎</kbd>
        </ElButton>
      </div>
    </section>

    <section v-else class="step" aria-live="polite">
      <h1>{{ lay.laid.value.length ? `${count(lay.laid.value.length, 'tape')} laid.` : 'No tape laid.' }}</h1>
      <table v-if="lay.laid.value.length" class="ledger sum">
        <tbody>
          <tr v-for="{ mark, placeMm } in summary" :key="mark.id">
            <th scope="row">{{ markName(mark) }}</th>
            <td class="number big">{{ mm(placeMm) }} mm</td>
            <td class="soft number">{{ signedMm(placeMm - mark.middleMm) }} mm from computed</td>
          </tr>
        </tbody>
      </table>
      <ElCheckbox v-if="rung.length" v-model="isData" size="large">
        {{ rung.length === 1 ? 'The place' : 'The places' }} that rang elsewhere than computed
        {{ rung.length === 1 ? 'corrects' : 'correct' }} the other places
      </ElCheckbox>
      <p class="do">
        Tapes guide; the ear decides. Play each once more with the bow and listen for its ring.
      </p>
      <FieldRow v-if="store.instrument" label="Why, or anything to remember">
        <template #default="{ id }">
          <ElInput
            :id="id"
            v-model="reason"
            maxlength="400"
            placeholder="new strings; first tapes; last one came off"
          />
        </template>
      </FieldRow>
      <p v-else class="soft">
        No instrument of the studio is on the bench, so there is no log to keep this in.
      </p>
      <div class="go">
        <ElButton size="large" @click="lay.back()">Back<kbd class="on-button">B</kbd></ElButton>
        <ElButton
          v-if="store.instrument"
          type="primary"
          size="large"
          :disabled="lay.laid.value.length === 0 || isSaving"
          @click="log"
        >
          Log as laid on {{ store.instrument.label }}<kbd class="on-button">⏎</kbd>
        </ElButton>
        <ElButton v-else type="primary" size="large" @click="done"
          >Done<kbd class="on-button">⏎</kbd></ElButton
        >
      </div>
    </section>
  </div>
</template>

<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { tapePiece, type TapeMark } from '#core'
import { useReferenceTone } from '../audio/useReferenceTone'
import FieldRow from '../features/shell/FieldRow.vue'
import { useShortcuts } from '../features/shell/useShortcuts'
import { COARSE_MM, FINE_MM, NOT_BEGUN, useLaying, type LayState } from '../features/lay/useLaying'
import { useKeepOnInstrument } from '../features/tapes/useKeepOnInstrument'
import { useRings } from '../features/tapes/useRings'
import { useBenchStore } from '../stores/bench'
import { count, listed, mm, signedMm } from '../words/numbers'
import { instrumentKind, markName } from '../words/trade'

const router = useRouter()
const store = useBenchStore()
const { bench } = store
const keep = useKeepOnInstrument()
const rings = useRings()
const tone = useReferenceTone()

const state = useSessionStorage<LayState>('jadefell.lay', { ...NOT_BEGUN })
/** Known at once after a reload, when the instrument and its rings are still on their way. */
const { instrumentId, lengthText, stringTexts, method, systemId, tapeWidthMm, contact } = store.setup
const of = JSON.stringify([
  [instrumentId, method, lengthText, stringTexts, systemId, tapeWidthMm, contact],
  bench.chosenMarks.value.map((mark) => mark.id),
])
const lay = useLaying(bench.marks.value, bench.lengthMm, state, of)
const marks: readonly TapeMark[] = lay.marks

const whose = computed(() =>
  [store.student?.name, store.instrument?.label, instrumentKind(store.setup.familyId, store.setup.sizeId)]
    .filter(Boolean)
    .join(' · '),
)
const pieces = marks.map((mark) => String(Math.ceil(tapePiece(bench.board.value, mark.middleMm).roundMm)))
const best = computed(() => (lay.mark.value ? rings.rowsOf(lay.mark.value)[0] : undefined))
const playWords = computed(() => {
  const row = best.value
  const [heard] = row?.heard ?? []
  if (!row || !heard)
    return 'No open string rings here: compare with a note an octave away, or trust the ruler.'
  const string = row.string.replace(/\d$/, '')
  return `Bow ${row.play} on the ${string} string and slide until open ${heard.open} rings, ${heard.words}.`
})
const summary = computed(() =>
  lay.laid.value.flatMap(({ markId, placeMm }) => {
    const mark = marks.find((m) => m.id === markId)
    return mark ? [{ mark, placeMm }] : []
  }),
)

/** Tapes whose ring was found elsewhere than computed: what a string really is, as the fit wants to know it. */
const rung = computed(() =>
  summary.value.flatMap(({ mark, placeMm }) => {
    const [row] = rings.rowsOf(mark)
    const stopMm = placeMm - (mark.middleMm - mark.stopMm)
    return row && Math.abs(placeMm - mark.middleMm) >= FINE_MM ? [{ row, stopMm }] : []
  }),
)
const isData = ref(true)
async function keepRung() {
  if (isData.value)
    for (const { row, stopMm } of rung.value) await store.addFind(row.string, row.play, stopMm)
}

const typed = ref('')
const isUnreadable = ref(false)
function take() {
  isUnreadable.value = typed.value.trim() !== '' && !lay.type(typed.value)
  if (isUnreadable.value) return
  typed.value = ''
  if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
}
watch(lay.at, () => {
  typed.value = ''
  isUnreadable.value = false
  tone.stop()
})

function toggleTone() {
  const row = best.value
  if (row) void tone.toggle(row.play, bench.system.value.centsAboveA4(row.check.stopped))
}

const reason = ref('')
const isSaving = ref(false)
async function log() {
  isSaving.value = true
  try {
    await keep.logLaid(lay.laid.value, reason.value)
    await keepRung()
    lay.end()
    leave()
  } finally {
    isSaving.value = false
  }
}
async function done() {
  await keepRung()
  lay.end()
  leave()
}
function leave() {
  void router.push({ name: 'tapes' })
}

onMounted(() => {
  if (marks.length === 0 || bench.isTypical.value) leave()
})
function flip(which: 'isSquared' | 'isWrapped') {
  const { value: step } = lay.step
  if (step) step[which] = !step[which]
}
useShortcuts('Laying tapes', [
  { key: 'Enter', does: 'Next tape; at the end, log them', run: onward },
  { key: 'ArrowLeft', does: 'Found a tenth nearer to the nut', run: () => lay.nudge(-FINE_MM) },
  { key: 'ArrowRight', does: 'Found a tenth nearer to the bridge', run: () => lay.nudge(FINE_MM) },
  { key: 'ArrowDown', does: 'Found half a millimetre nearer to the nut', run: () => lay.nudge(-COARSE_MM) },
  { key: 'ArrowUp', does: 'Found half a millimetre nearer to the bridge', run: () => lay.nudge(COARSE_MM) },
  { key: 's', does: 'Squared', run: () => flip('isSquared') },
  { key: 'w', does: 'Wrapped', run: () => flip('isWrapped') },
  { key: 't', does: 'Reference tone', run: toggleTone },
  { key: 'b', does: 'Back', run: () => lay.back() },
  { key: 'Escape', does: 'Leave', run: leave },
])
function onward() {
  if (!lay.isOver.value) return lay.next()
  if (!store.instrument) return void done()
  if (lay.laid.value.length > 0 && !isSaving.value) void log()
}
</script>

<style scoped>
.stand {
  display: grid;
  grid-template-rows: auto 1fr;
  min-height: calc(100vh - 60px);
}

header {
  display: flex;
  align-items: center;
  gap: 18px;
}

header .whose {
  margin-right: auto;
  font: 400 19px/1.2 var(--font-title);
  color: var(--ink-soft);
}

.step {
  display: grid;
  align-content: center;
  justify-items: center;
  gap: 14px;
  padding: 12px 0 40px;
  text-align: center;
}

.step h1 {
  font-size: 54px;
}

.step ul {
  max-width: 760px;
  margin: 0;
  padding-left: 22px;
  text-align: left;
  font-size: 18px;
  line-height: 1.5;
}

.name {
  font: 500 30px/1.1 var(--font-title);
}

/* 96 points: read from a chair, with the instrument in both hands. */
.figure {
  font: 700 96pt/1 var(--font-text);
  color: var(--jade);
  font-variant-numeric: tabular-nums;
}

.figure small {
  font-size: 36pt;
  font-weight: 600;
}

.from {
  font-size: 17px;
}

.do {
  max-width: 820px;
  font: 400 26px/1.35 var(--font-title);
}

.found {
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  gap: 8px;
}

.found :deep(.el-button) {
  margin: 0;
  min-width: 68px;
  font-variant-numeric: tabular-nums;
}

.found input {
  width: 120px;
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  background: var(--card);
  color: var(--ink);
  font: 700 20px var(--font-text);
  text-align: center;
}

.checks {
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  gap: 6px 26px;
}

.go {
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  gap: 10px;
}

.go :deep(.el-button) {
  margin: 0;
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
