<template>
  <section class="step">
    <div aria-live="polite">
      <p class="name">{{ markName(mark) }}</p>
      <p class="figure numbers">{{ inUnit(step.foundMm) }}<small>{{ ` ${unitName()}` }}</small></p>
    </div>
    <p class="from soft numbers">
      <template v-if="Math.abs(step.foundMm - mark.middleMm) < 0.06">
        from the nut to the tape’s middle; edges {{ inUnit(mark.nearEdgeMm) }} and
        {{ inUnit(mark.farEdgeMm) }}
      </template>
      <template v-else>
        computed {{ inUnit(mark.middleMm) }}, found {{ signedLength(step.foundMm - mark.middleMm) }} from it
      </template>
    </p>
    <p v-if="correctedBy" class="from">{{ correctedBy }}</p>
    <p class="do">{{ playWords }}</p>
    <p v-if="tapes.thickness" class="heed">{{ tapes.thickness }}</p>
    <div class="found" role="group" aria-label="Found at">
      <ElButton size="large" aria-label="Half a millimetre towards the nut" @click="emit('nudge', -COARSE_MM)"
        >−0.5</ElButton
      >
      <ElButton size="large" aria-label="A tenth towards the nut" @click="emit('nudge', -FINE_MM)"
        >−0.1</ElButton
      >
      <label class="visually-hidden" for="found-at">Found at, mm</label>
      <input
        id="found-at"
        ref="foundAt"
        v-model="typed"
        class="numbers"
        inputmode="decimal"
        data-takes="length"
        maxlength="12"
        :placeholder="inUnit(step.foundMm)"
        :aria-invalid="isUnreadable"
        :aria-describedby="isUnreadable ? 'found-at-fault' : undefined"
        @keydown.enter.stop.prevent="takeTyped"
        @blur="takeTyped"
      />
      <ElButton size="large" aria-label="A tenth towards the bridge" @click="emit('nudge', FINE_MM)"
        >+0.1</ElButton
      >
      <ElButton
        size="large"
        aria-label="Half a millimetre towards the bridge"
        @click="emit('nudge', COARSE_MM)"
        >+0.5</ElButton
      >
      <ElButton
        v-if="best"
        size="large"
        :aria-pressed="tone.sounding.value === noteName(best.stopped)"
        @click="toggleTone"
      >
        {{ tone.sounding.value === noteName(best.stopped) ? '■' : '▶' }} {{ noteLabel(best.stopped)
        }}<KeyHint of="t" on-button />
      </ElButton>
    </div>
    <p v-if="isUnreadable" id="found-at-fault" class="fault" role="alert">
      “{{ typed }}” is no place on this string: type how far it is from the nut, as in
      {{ length(mark.middleMm) }}.
    </p>
    <div class="checks">
      <ElCheckbox v-model="isSquared" size="large"> {{ lies }}<KeyHint of="s" on-button /> </ElCheckbox>
      <ElCheckbox v-model="isWrapped" size="large">
        pressed and wrapped round the neck<KeyHint of="w" on-button />
      </ElCheckbox>
    </div>
    <div class="go">
      <ElButton size="large" @click="emit('back')">Back<KeyHint of="b" on-button /></ElButton>
      <ElButton size="large" @click="emit('skip')">Leave this one off</ElButton>
      <ElButton type="primary" size="large" @click="emit('next')">
        Next<KeyHint of="Enter" on-button />
      </ElButton>
    </div>
    <p v-if="waitsFor.length" class="heed" role="alert">
      Still to do, and to tick: {{ listed(waitsFor.map((tick) => TICK_WORDS[tick])) }}.
    </p>
  </section>
</template>

<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { noteName, type TapeMark } from '#core'
import { useReferenceTone } from '../../audio/useReferenceTone'
import { useBench } from '../../stores/bench'
import { useShortcuts } from '../../ui/useShortcuts'
import { askewSentence } from '../../words/length'
import { inUnit, length, listed, signedLength, unitName } from '../../words/numbers'
import { markName, ringWords } from '../../words/trade'
import { COARSE_MM, FINE_MM, type LayStep, type Tick } from './useLaying'
import { useTapes } from './useTapes'
import KeyHint from '../../ui/KeyHint.vue'
import { noteLabel } from '../../words/notes'

/** One tape: where it belongs, where it rang, and what is done with it. */
const props = defineProps<{
  mark: TapeMark
  step: LayStep
  /** What the next tape waits for, once it was asked for. */
  waitsFor: readonly Tick[]
  /** Takes a place as typed; false when it is none. */
  take: (text: string) => boolean
}>()
const TICK_WORDS: Readonly<Record<Tick, string>> = {
  isSquared: 'set it straight (S)',
  isWrapped: 'press it on and wrap it round (W)',
}
const emit = defineEmits<{
  nudge: [byMm: number]
  next: []
  back: []
  skip: []
  set: [what: Tick, to: boolean]
}>()
const bench = useBench()
const tapes = useTapes()
const tone = useReferenceTone()

const isSquared = computed({ get: () => props.step.isSquared, set: (to) => emit('set', 'isSquared', to) })
const isWrapped = computed({ get: () => props.step.isWrapped, set: (to) => emit('set', 'isWrapped', to) })

const names = computed(() => bench.tuning.map((open) => noteLabel(open, { octave: false })))
const lies = computed(() => {
  const askew = tapes.askewOf(props.mark)
  return askew ? `laid ${askewSentence(askew, names.value)}` : 'squared to the strings'
})
const best = computed(() => tapes.layRowsOf(props.mark)[0])
const playWords = computed(() => {
  const row = best.value
  const [ring] = row?.rings ?? []
  if (!row || !ring)
    return 'No open string rings here: compare with a note an octave away, or trust the ruler.'
  const [string, open] = [row.open, ring.open].map((n) => noteLabel(n, { octave: false }))
  return `Bow ${noteLabel(row.stopped)} on the ${string} string and slide until open ${open} rings, ${ringWords(ring)}.`
})
/** What rang before moves this tape: said, as the strip in her hand may have it elsewhere. */
const correctedBy = computed(() => {
  const moved = props.mark.middleMm - props.step.plannedMm
  return Math.abs(moved) < FINE_MM / 2
    ? undefined
    : `Corrected by what rang before: it was ${length(props.step.plannedMm)}.`
})
function toggleTone() {
  const row = best.value
  if (row) void tone.toggle(noteName(row.stopped), bench.stringing.system.centsAboveA4(row.stopped))
}

const foundAt = ref<HTMLInputElement>()
const typed = ref('')
const isUnreadable = ref(false)
function takeTyped() {
  isUnreadable.value = typed.value.trim() !== '' && !props.take(typed.value)
  if (isUnreadable.value) return
  typed.value = ''
  if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
}
watch(
  () => props.mark.id,
  () => {
    typed.value = ''
    isUnreadable.value = false
    tone.stop()
  },
)

useShortcuts('This tape', [
  { key: 'ArrowLeft', does: 'Found a tenth nearer to the nut', run: () => emit('nudge', -FINE_MM) },
  { key: 'ArrowRight', does: 'Found a tenth nearer to the bridge', run: () => emit('nudge', FINE_MM) },
  {
    key: 'ArrowDown',
    does: 'Found half a millimetre nearer to the nut',
    run: () => emit('nudge', -COARSE_MM),
  },
  {
    key: 'ArrowUp',
    does: 'Found half a millimetre nearer to the bridge',
    run: () => emit('nudge', COARSE_MM),
  },
  { key: 'f', does: 'Type where it rang', run: () => foundAt.value?.focus() },
  { key: 's', does: 'Squared', run: () => (isSquared.value = !isSquared.value) },
  { key: 'w', does: 'Wrapped', run: () => (isWrapped.value = !isWrapped.value) },
  { key: 't', does: 'Reference tone', run: toggleTone },
])
</script>

<style scoped>
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

/* How an askew tape lies takes two lines on a phone. */
.checks .el-checkbox {
  height: auto;
  min-height: 40px;
  margin-right: 0;
  white-space: normal;
}

.checks {
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  gap: 6px 26px;
}
</style>
