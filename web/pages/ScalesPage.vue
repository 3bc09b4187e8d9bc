<template>
  <PatternsHead>
    <ElButton :disabled="line.notes.value.length === 0" @click="isPrinting = true"
      >Print<KeyHint of="p" on-button
    /></ElButton>
    <ElButton :disabled="line.notes.value.length === 0 || line.doubled.value !== undefined" @click="check"
      >Check it<KeyHint of="h" on-button
    /></ElButton>
    <ElButton type="primary" :disabled="line.notes.value.length === 0" @click="toggle">
      {{ isPlaying ? 'Stop' : 'Play' }}<KeyHint of=" " on-button />
    </ElButton>
  </PatternsHead>
  <section class="choices" aria-label="What is played">
    <KeyFields />
    <FieldRow label="Play">
      <PlainSelect v-model="choice.figure" label="Play" :options="figures" />
    </FieldRow>
    <FieldRow v-if="line.isScale.value" label="Octaves">
      <ElSegmented v-model="choice.octaves" :options="[1, 2, 3]" aria-label="Octaves" />
    </FieldRow>
    <FieldRow v-if="line.hasOpenChoice.value" label="Same note as an open string">
      <ElSegmented
        v-model="choice.openStrings"
        :options="OPEN_OR_FOURTH"
        aria-label="Fourth finger or open string"
      />
    </FieldRow>
    <template v-if="!line.isScale.value">
      <FieldRow v-if="line.drill.value && !line.drill.value.across" label="String">
        <ElSegmented v-model="stringIndex" :options="strings" aria-label="String" />
      </FieldRow>
      <FieldRow label="Position">
        <PlainSelect v-model="positionId" label="Position" :options="positions" />
      </FieldRow>
    </template>
  </section>
  <section class="card music">
    <p class="title">{{ title }}</p>
    <p v-if="line.run.value.fault" class="heed" role="alert">{{ line.run.value.fault }}</p>
    <LineStaff
      v-if="line.notes.value.length > 0"
      v-model:selected="selected"
      :line="line"
      :at="player.at.value"
      :label="title"
      :tuning="atlas.tuning.value"
      @hear="hear"
    />
    <p v-if="line.drill.value" class="how">
      {{ timesSentence }}{{ drillHow(line.drill.value.id, settings.schoolsOf(patterns.student)) }}
    </p>
    <p v-else-if="line.doubled.value" class="how">{{ doubledSentence }}</p>
    <p v-if="line.drill.value?.isWide || line.doubled.value" class="heed">
      Only if it is comfortable. At any pain, numbness or tingling: stop, rest, and ask a doctor.
    </p>
    <FingeringBar
      v-if="line.isScale.value && (line.notes.value.length > 0 || line.own.isChanged.value)"
      :line="line"
      @choose="(id) => (line.variant.value = id)"
      @keep="keep"
      @usual="theUsual"
    />
  </section>
  <section class="card sound" aria-label="Sound">
    <FieldRow label="In">
      <ElSegmented v-model="choice.value" :options="VALUE_OPTIONS" aria-label="Note values" />
    </FieldRow>
    <FieldRow label="Tempo" hint="quarters a minute">
      <div class="tempo">
        <KeyHint of="-" />
        <ElSlider v-model="choice.tempo" :min="30" :max="160" :step="2" aria-label="Tempo" />
        <KeyHint of="+" />
        <output class="numbers">{{ choice.tempo }}</output>
      </div>
    </FieldRow>
    <FieldRow label="Tuned">
      <SystemChoice v-model="bench.setup.systemId" :tuning="bench.tuning" />
    </FieldRow>
    <FieldRow label="A4">
      <PlainSelect v-model="player.a4Hz.value" label="A4 in Hz" :options="pitches" />
    </FieldRow>
    <ElCheckbox v-model="choice.isLoop">Loop <KeyHint of="o" /></ElCheckbox>
    <p class="soft">Keep tones in headphones quiet.</p>
  </section>
  <section class="card">
    <StringBoard
      :stringing="bench.stringing"
      :fingers="line.fingersAt(shownAt)"
      :active-string="soundingString"
      label="Fingerboard with the places of the line"
    />
  </section>
  <LineSheetDialog v-if="isPrinting" v-model="isPrinting" :line="line" :title="title" :whose="whose" />
</template>

<script setup lang="ts">
import { useEventListener, useSessionStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { A4_CHOICES } from '../audio/useReferenceTone'
import { usePlayer } from '../audio/usePlayer'
import StringBoard from '../board/StringBoard.vue'
import FingeringBar from '../features/patterns/FingeringBar.vue'
import KeyFields from '../features/patterns/KeyFields.vue'
import LineSheetDialog from '../features/patterns/LineSheetDialog.vue'
import LineStaff from '../features/patterns/LineStaff.vue'
import PatternsHead from '../features/patterns/PatternsHead.vue'
import { FIRST_LINE, type LineChoice, type PlayedFigure } from '../features/patterns/line-choice'
import { useLine } from '../features/patterns/useLine'
import PlainSelect from '../ui/PlainSelect.vue'
import FieldRow from '../ui/FieldRow.vue'
import { useShortcuts } from '../ui/useShortcuts'
import SystemChoice from '../ui/SystemChoice.vue'
import { useExerciseChoice } from '../stores/exercise-choice'
import { useSettings } from '../stores/settings'
import { usePatterns } from '../features/patterns/usePatterns'
import { useBench } from '../stores/bench'
import { count, length, listed } from '../words/numbers'
import { DOUBLE_STOP_NAMES, drillHow, drillName } from '../words/drills'
import { keyName } from '../words/keys'
import { positionName, shortPositionName } from '../words/positions'
import { instrumentKind } from '../words/trade'
import KeyHint from '../ui/KeyHint.vue'
import { noteLabel } from '../words/notes'

const OPEN_OR_FOURTH = [
  { value: 'prefer', label: 'Open string' },
  { value: 'avoid', label: '4th finger' },
]
const VALUE_OPTIONS = [
  { value: 'quarter', label: 'Quarters' },
  { value: 'eighth', label: 'Eighths' },
  { value: 'sixteenth', label: 'Sixteenths' },
]
const OCTAVE_WORDS = ['', 'one octave', 'two octaves', 'three octaves']
const TEMPO_STEP = 4

const router = useRouter()
const exercises = useExerciseChoice()
const settings = useSettings()
const patterns = usePatterns()
const { atlas } = patterns
const bench = useBench()
const family = computed(() => atlas.family.value)
const choice = useSessionStorage<LineChoice>('jadefell.line', { ...FIRST_LINE }, { mergeDefaults: true })
const line = useLine(choice, patterns)
const player = usePlayer()
const isPrinting = ref(false)
const selected = ref<number>()
/** The note that sounds, else the one that is looked at: on staff and board together. */
const shownAt = computed(() => player.at.value ?? selected.value)
const isPlaying = computed(() => player.at.value !== undefined)

const frame = computed(() => family.value.frames[atlas.context.value.frameIndex])
const figures = computed<{ value: PlayedFigure; label: string }[]>(() => [
  { value: 'scale', label: 'Scale' },
  { value: 'arpeggio', label: 'Arpeggio' },
  ...line.offered.value.map(({ id }) => ({ value: id, label: drillName(id, frame.value) })),
  ...line.offeredDoubles.value.map((kind) => ({ value: kind, label: DOUBLE_STOP_NAMES[kind] })),
])
watch(
  figures,
  (offered) => {
    if (!offered.some((f) => f.value === choice.value.figure)) choice.value.figure = 'scale'
  },
  { immediate: true },
)
const strings = computed(() =>
  atlas.tuning.value.map((open, value) => ({ value, label: noteLabel(open, { octave: false }) })),
)
const stringIndex = computed({
  get: () => atlas.stringIndex.value,
  set: (index) => (patterns.choice.stringIndex = index),
})
const positions = computed(() =>
  family.value.positions.map((p) => ({ value: p.id, label: shortPositionName(p) })),
)
const positionId = computed({
  get: () => atlas.position.value.id,
  set: (id) => (patterns.choice.positionId = id),
})
const pitches = computed(() =>
  [...new Set([...A4_CHOICES, player.a4Hz.value])].map((hz) => ({ value: hz, label: `${hz} Hz` })),
)

const title = computed(() => {
  const key = keyName(atlas.key.value)
  const { figure, octaves } = choice.value
  if (line.drill.value)
    return `${drillName(line.drill.value.id, frame.value)}: ${key}, ${positionName(atlas.position.value)}`
  if (line.doubled.value)
    return `${DOUBLE_STOP_NAMES[line.doubled.value]}: ${key}, ${positionName(atlas.position.value)}`
  return `${key} ${figure === 'arpeggio' ? 'arpeggio' : figures.value[0]!.label.toLowerCase()}, ${OCTAVE_WORDS[octaves]}`
})
const timesSentence = computed(() => {
  const times = line.drill.value?.times ?? 1
  return times > 1 ? `${count(times, 'time')} on each string. ` : ''
})
const doubledSentence = computed(() => {
  const wide = line.tooWide.value.map(
    ({ lower, upper, spreadMm }) =>
      `${noteLabel(lower.note)} with ${noteLabel(upper.note)}, ${length(spreadMm)}`,
  )
  const reach = patterns.student?.hand
    ? wide.length > 0
      ? `Wider than this hand’s comfortable span, leave them out: ${listed(wide)}. `
      : 'All within this hand’s comfortable span. '
    : 'Measure the hand to see which are within its span. '
  return `${reach}The lower note alone first, then the upper, then both.`
})
const whose = computed(() => {
  const { instrument, setup } = bench
  const kind = instrumentKind(setup.familyId, setup.sizeId)
  return [patterns.student?.name, instrument ? `${kind}, ${instrument.label}` : kind].filter(
    (w) => w !== undefined,
  )
})
const soundingString = computed(() =>
  shownAt.value === undefined ? undefined : line.notes.value[shownAt.value]?.stringIndex,
)

function toggle() {
  if (isPlaying.value) return player.stop()
  void player.start(() => ({
    centsAboveA4: line.pitches.value,
    upperCents: line.upperPitches.value,
    noteMs: line.noteMs.value,
    isLoop: choice.value.isLoop,
  }))
}
/** One note alone, as long as in the line. */
function hear(index: number) {
  const cents = line.pitches.value[index]
  if (cents === undefined) return
  void player.start(() => ({
    centsAboveA4: [cents],
    upperCents: [line.upperPitches.value[index]],
    noteMs: Math.max(500, line.noteMs.value),
    isLoop: false,
  }))
}
/** Wherever the cursor is, as everything is kept. */
useEventListener(document, 'keydown', (event) => {
  if (event.key !== 'Enter' || !(event.ctrlKey || event.metaKey) || event.defaultPrevented) return
  if (!line.canKeep.value) return
  event.preventDefault()
  void keep()
})
async function keep() {
  await line.own.keep(title.value, line.fingered.value)
}
async function theUsual() {
  line.variant.value = 'usual'
  await line.own.keep(title.value, null)
}
// Another line is not the one that was started.
watch(
  () => line.notes.value,
  () => player.stop(),
)

useShortcuts('Scales and drills', [
  { key: ' ', does: 'Play, or stop', run: toggle },
  { key: 'ArrowDown', does: 'Next key', run: () => atlas.moveKey(1) },
  { key: 'ArrowUp', does: 'Key before', run: () => atlas.moveKey(-1) },
  { key: 'ArrowRight', does: 'String above', run: () => atlas.moveString(1) },
  { key: 'ArrowLeft', does: 'String below', run: () => atlas.moveString(-1) },
  { key: '.', does: 'Next position', run: () => atlas.movePosition(1) },
  { key: ',', does: 'Position before', run: () => atlas.movePosition(-1) },
  { key: 'n', does: 'Next figure', run: nextFigure },
  { key: 'v', does: 'Next fingering', run: nextFingering },
  { key: 'h', does: 'Check this line', run: check },
  { key: 'p', does: 'Print this line', run: () => (isPrinting.value = line.notes.value.length > 0) },
  { key: 'o', does: 'Loop', run: () => (choice.value.isLoop = !choice.value.isLoop) },
  {
    key: '+',
    does: 'Faster',
    run: () => (choice.value.tempo = Math.min(160, choice.value.tempo + TEMPO_STEP)),
  },
  {
    key: '-',
    does: 'Slower',
    run: () => (choice.value.tempo = Math.max(30, choice.value.tempo - TEMPO_STEP)),
  },
])

/** What stands here is played next. */
function check() {
  const { figure, octaves, openStrings } = choice.value
  const { key, position, stringIndex: string } = atlas
  const drillId = line.drill.value?.id
  exercises.choose({
    keyId: key.value.id,
    octaves,
    openStrings,
    positionId: position.value.id,
    stringIndex: string.value,
    ...(drillId
      ? { kind: 'drill', drillId }
      : { kind: figure === 'arpeggio' ? ('arpeggio' as const) : ('scale' as const) }),
  })
  void router.push({ name: 'check' })
}

function nextFingering() {
  const all = line.alternatives.value.map(({ id }) => id)
  const at = all.indexOf(line.alternative.value?.id ?? 'usual')
  line.variant.value = all[(at + 1) % all.length] ?? 'usual'
}

function nextFigure() {
  const at = figures.value.findIndex((f) => f.value === choice.value.figure)
  choice.value.figure = figures.value[(at + 1) % figures.value.length]!.value
}
</script>

<style scoped>
.card {
  margin-bottom: var(--gap);
}

.title {
  margin-bottom: 6px;
  font: 500 23px/1.25 var(--font-title);
}

.how {
  margin-top: 4px;
  font-size: 16.5px;
}

.sound {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 20px;
  padding-top: 10px;
  padding-bottom: 10px;
}

.sound > :deep(.field:has(.el-slider)) {
  width: 300px;
}

.sound > :deep(.field:has(.el-select)) {
  width: 146px;
}

.tempo {
  display: grid;
  grid-template-columns: auto 1fr auto auto;
  align-items: center;
  gap: 14px;
  height: 34px;
}

.tempo output {
  font-size: 20px;
  font-weight: 700;
}

.sound .el-checkbox {
  height: 34px;
}
</style>
