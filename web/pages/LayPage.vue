<template>
  <div class="stand">
    <header>
      <p class="whose">{{ whose }}</p>
      <p class="numbers soft">
        {{
          lay.isOver.value || logged
            ? 'done'
            : lay.at.value < 0
              ? 'before you begin'
              : `tape ${lay.at.value + 1} of ${lay.marks.value.length}`
        }}
      </p>
      <ElButton v-if="!logged" @click="leave">Leave<KeyHint of="Escape" on-button /></ElButton>
    </header>
    <section v-if="logged" class="step" aria-label="Logged">
      <h1 ref="heading" tabindex="-1">{{ logged.sentence }}</h1>
      <p class="do">Tapes guide; the ear decides. Now the hand that is to use them.</p>
      <div class="go">
        <ElButton size="large" @click="leave">The tapes<KeyHint of="Escape" on-button /></ElButton>
        <ElButton type="primary" size="large" @click="check"
          >{{ holder ? `Check ${holder.name}` : 'Check a hand' }}<KeyHint of="c" on-button
        /></ElButton>
      </div>
    </section>
    <LayBeginning v-else-if="lay.at.value < 0" :marks="lay.marks.value" @begin="lay.next()" />
    <LayStepCard
      v-else-if="lay.mark.value && lay.step.value"
      :mark="lay.mark.value"
      :step="lay.step.value"
      :waits-for="lay.waitsFor.value"
      :take="lay.type"
      @nudge="lay.nudge"
      @next="next"
      @back="lay.back()"
      @skip="lay.skip()"
      @set="lay.set"
    />
    <LaySummary
      v-else
      v-model:reason="reason"
      :laid="lay.laid.value"
      :summary="summary"
      :rung-count="rung.length"
      :is-saving="isSaving"
      @back="lay.back()"
      @log="log"
      @done="done"
    />
  </div>
</template>

<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core'
import { computed, nextTick, onMounted, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import { noteName } from '#core'
import LayBeginning from '../features/tapes/LayBeginning.vue'
import LayStepCard from '../features/tapes/LayStepCard.vue'
import LaySummary from '../features/tapes/LaySummary.vue'
import { useKeepOnInstrument } from '../features/tapes/useKeepOnInstrument'
import { FINE_MM, NOT_BEGUN, useLaying, type LayState } from '../features/tapes/useLaying'
import { useTapes } from '../features/tapes/useTapes'
import { useBench } from '../stores/bench'
import { useLesson } from '../stores/lesson'
import { useStudio } from '../stores/studio'
import { useShortcuts } from '../ui/useShortcuts'
import { count } from '../words/numbers'
import { instrumentKind } from '../words/trade'
import KeyHint from '../ui/KeyHint.vue'

const router = useRouter()
const bench = useBench()
const tapes = useTapes()
const keep = useKeepOnInstrument()

const state = useSessionStorage<LayState>('jadefell.lay', { ...NOT_BEGUN })
/** Known at once after a reload, when the instrument and its rings are still on their way. */
const { instrumentId, lengthText, stringTexts, method, systemId, tapeWidthMm, contact } = bench.setup
const of = JSON.stringify([
  // The form of what is remembered.
  2,
  [instrumentId, method, lengthText, stringTexts, systemId, tapeWidthMm, contact],
  tapes.chosenMarks.map((mark) => mark.id),
])
const lay = useLaying(
  tapes.marks,
  computed(() => bench.stringing.lengthMm),
  state,
  of,
)

const whose = computed(() =>
  [bench.student?.name, bench.instrument?.label, instrumentKind(bench.setup.familyId, bench.setup.sizeId)]
    .filter(Boolean)
    .join(' · '),
)
const summary = computed(() =>
  lay.laid.value.flatMap(({ markId, placeMm }) => {
    const mark = lay.marks.value.find((m) => m.id === markId)
    return mark ? [{ mark, placeMm }] : []
  }),
)

/** Tapes whose ring was found elsewhere than computed: what a string really is, as the calibration wants to know it. */
const rung = computed(() =>
  summary.value.flatMap(({ mark, placeMm }) => {
    const [row] = tapes.layRowsOf(mark)
    const stopMm = placeMm - (mark.middleMm - mark.stopMm)
    return row && Math.abs(placeMm - mark.middleMm) >= FINE_MM ? [{ row, stopMm }] : []
  }),
)
/** The next tape belongs where those before it rang, and is laid there. */
function next() {
  lay.next()
  const finds = rung.value.map(({ row: { stringIndex, cents }, stopMm }) => ({
    stringIndex,
    cents,
    placeMm: stopMm,
    isTrusted: false,
  }))
  lay.correct(tapes.chartOf(bench.strungWith(finds)))
}
async function keepRung() {
  // As they are now: what is taken in moves the others.
  for (const { row, stopMm } of [...rung.value])
    await bench.addFind(noteName(row.open), noteName(row.stopped), stopMm)
}

const reason = ref('')
const isSaving = ref(false)
/** All is done: what comes next is a key away. */
const logged = shallowRef<{ sentence: string }>()
const heading = ref<HTMLElement>()
const lesson = useLesson()
/** Whose instrument it is, in the lesson or not. */
const holder = computed(() => bench.student ?? useStudio().student(bench.instrument?.holder?.studentId ?? ''))
function check() {
  if (holder.value) lesson.begin(holder.value.id)
  void router.push({ name: 'check' })
}
async function log() {
  isSaving.value = true
  try {
    await keep.logLaid(lay.laid.value, reason.value)
    await keepRung()
    await end(`logged as laid on ${bench.instrument?.label}`)
  } finally {
    isSaving.value = false
  }
}
async function done() {
  await keepRung()
  await end('laid')
}
async function end(what: string) {
  const laid = count(lay.laid.value.length, 'tape')
  lay.end()
  logged.value = { sentence: `${laid} ${what}.` }
  await nextTick()
  heading.value?.focus({ preventScroll: true })
}
function leave() {
  void router.push({ name: 'tapes' })
}

onMounted(() => {
  if (lay.marks.value.length === 0 || !bench.stringing.isMeasured) leave()
})
useShortcuts('Laying tapes', [
  { key: 'Enter', does: 'Next tape; at the end, log them', run: onward },
  { key: 'c', does: 'Check the hand, once they are logged', run: () => logged.value && check() },
  { key: 'b', does: 'Back', run: () => lay.back() },
  { key: 'Escape', does: 'Leave', run: leave },
])
function onward() {
  if (logged.value) return check()
  if (!lay.isOver.value) return next()
  if (!bench.instrument) return void done()
  if (lay.laid.value.length > 0 && !isSaving.value) void log()
}
</script>

<style scoped>
.stand {
  display: grid;
  grid-template-rows: auto 1fr;
  min-height: calc(100vh - 60px);
}

h1:focus {
  outline: none;
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

.stand :deep(.step) {
  display: grid;
  align-content: center;
  justify-items: center;
  gap: 14px;
  padding: 12px 0 40px;
  text-align: center;
}

.stand :deep(.do) {
  max-width: 820px;
  font: 400 26px/1.35 var(--font-title);
}

.stand :deep(.go) {
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  gap: 10px;
}

.stand :deep(.go .el-button) {
  margin: 0;
}
</style>
