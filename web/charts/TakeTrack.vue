<template>
  <ChartFrame
    class="track"
    caption="Cents off the note that was meant"
    :label="`${notes.length} notes against what was meant: ${spoken}`"
    :height="230"
    :margins="{ top: 34, right: 14, bottom: 26, left: 46 }"
    :x-scale="xScale"
    :y-scale="yScale"
    :x-ticks="xTicks"
    :y-ticks="5"
    :y-name="signedCents"
    has-zero
  >
    <template #behind="{ y, area }">
      <rect
        :x="area.left"
        :width="area.width"
        :y="y(toleranceCents)"
        :height="y(-toleranceCents) - y(toleranceCents)"
        class="tolerance"
      />
    </template>
    <template #default="{ x, y, area }">
      <g
        v-for="(one, index) in drawn(x, y)"
        :key="index"
        :class="['heard', one.side, { shown: index === shown, stray: one.isStray }]"
        role="button"
        tabindex="0"
        :aria-label="one.spoken"
        @click="emit('hear', index)"
        @keydown.enter.prevent="emit('hear', index)"
      >
        <rect :x="one.left" :width="one.width" :y="area.top" :height="area.height" class="reach" />
        <path :d="one.path" />
        <circle :cx="one.landingX" :cy="one.landingY" r="5" class="landing" />
        <rect :x="one.settledX - 4" :y="one.settledY - 4" width="8" height="8" class="settled" />
        <text v-if="one.width > FINGER_PX" :x="one.middle" y="14" text-anchor="middle" class="finger">
          {{ one.finger }}
        </text>
        <text v-if="one.width > NAME_PX" :x="one.middle" y="29" text-anchor="middle">{{ one.name }}</text>
      </g>
    </template>
    <template #key>
      <div class="under">
        <p class="soft key">
          ● where the finger landed<template v-if="notes.some((one) => one.isStray)"
            >, ○ left out of the verdict</template
          >
          · ■ where the ear left it · the band is the tolerance. Click a note to hear it.
        </p>
        <TableExport :table="() => takeTable(notes)">
          <button type="button" @click="saveMidi">MIDI</button>
          <button
            v-if="sound"
            type="button"
            title="The sound is not stored here. With a child’s recording follow your school’s rules."
            @click="saveWav"
          >
            WAV
          </button>
        </TableExport>
      </div>
    </template>
  </ChartFrame>
</template>

<script setup lang="ts">
import { fingerSign, fingerWords } from '../words/fingers'
import { scaleLinear, type ScaleLinear } from 'd3-scale'
import { line } from 'd3-shape'
import { computed } from 'vue'
import { READ_TO_CENTS, writeHeardMidi, writeWav } from '#core'
import TableExport from '../files/TableExport.vue'
import { saveFile } from '../files/tables'
import ChartFrame from './ChartFrame.vue'
import { soundedNotes, takeTable } from './take-files'
import { noteLabel } from '../words/notes'
import { signedCents } from '../words/numbers'
import type { TrackNote } from './track-notes'

const props = defineProps<{
  notes: readonly TrackNote[]
  toleranceCents: number
  /** The note that is pointed at. */
  shown?: number
  /** The take itself, while it is in memory. */
  sound?: { readonly samples: Float32Array; readonly sampleRateHz: number } | undefined
}>()
const emit = defineEmits<{ hear: [index: number] }>()

/** A note so narrow has no room for its finger, or its name; they are read out all the same. */
const FINGER_PX = 12
const OPEN_PX = 36
const NAME_PX = 24
/** A finger is read up to here; what lies further off is drawn at the edge. */
const MOST_CENTS = READ_TO_CENTS
const LEAST_CENTS = 30

const reach = computed(() => {
  const widest = Math.max(
    LEAST_CENTS,
    1.4 * props.toleranceCents,
    ...props.notes.map((n) => 1.15 * Math.max(Math.abs(n.landingCents), Math.abs(n.settledCents))),
  )
  return Math.min(MOST_CENTS, widest)
})
function xScale(range: [number, number]) {
  return scaleLinear([0, Math.max(1, props.notes.at(-1)?.endS ?? 1) + 0.2], range)
}
function yScale(range: [number, number]) {
  return scaleLinear([-reach.value, reach.value], range).clamp(true)
}
const xTicks = (x: ScaleLinear<number, number>, width: number) =>
  x.ticks(Math.max(2, Math.floor(width / 110))).map((at) => ({ at: x(at), label: `${at} s` }))

function saveMidi() {
  saveFile('take.mid', writeHeardMidi(soundedNotes(props.notes)) as Uint8Array<ArrayBuffer>, 'audio/midi')
}
function saveWav() {
  if (props.sound) saveFile('take.wav', writeWav(props.sound.samples, props.sound.sampleRateHz), 'audio/wav')
}

const spokenOf = (n: TrackNote) =>
  `${fingerWords(n.finger)}, ${noteLabel(n.note)}, landed ${signedCents(n.landingCents)}, left at ${signedCents(n.settledCents)} cents${n.isStray ? ', left out of the verdict' : ''}`
const spoken = computed(() => props.notes.map(spokenOf).join('; '))

/** Moments that lie further off are another sound’s, or none’s: the line breaks there. */
const pathOf = (
  moments: TrackNote['moments'],
  x: ScaleLinear<number, number>,
  y: ScaleLinear<number, number>,
) =>
  line<readonly [number, number]>(
    ([atS]) => x(atS),
    ([, cents]) => y(cents),
  ).defined(([, cents]) => Math.abs(cents) <= reach.value)(moments) ?? ''

function drawn(x: ScaleLinear<number, number>, y: ScaleLinear<number, number>) {
  return props.notes.map((n) => {
    const isOff = n.finger !== 0 && Math.abs(n.landingCents) > props.toleranceCents
    const width = Math.max(1, x(n.endS) - x(n.startS))
    return {
      // Where the word has no room it stands as on the staff.
      finger: n.finger > 0 ? fingerSign(n.finger) : width > OPEN_PX ? 'open' : '0',
      name: noteLabel(n.note, { octave: false }),
      spoken: spokenOf(n),
      isStray: n.isStray,
      side: isOff ? (n.landingCents > 0 ? 'sharp' : 'flat') : 'well',
      left: x(n.startS),
      width,
      middle: (x(n.startS) + x(n.endS)) / 2,
      path: pathOf(n.moments, x, y),
      landingX: x(n.startS) + 6,
      landingY: y(n.landingCents),
      settledX: x(n.endS) - 6,
      settledY: y(n.settledCents),
    }
  })
}
</script>

<style scoped>
.track {
  margin-top: 10px;
}

.tolerance {
  fill: var(--jade-wash);
}

.heard {
  cursor: pointer;
}

.heard path {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 1.5;
}

.reach {
  fill: transparent;
}

.shown .reach,
.heard:hover .reach,
.heard:focus-visible .reach {
  fill: var(--brass-wash);
  fill-opacity: 0.5;
}

.heard .finger {
  fill: var(--ink);
  font: 700 15px var(--font-text);
}

.settled {
  fill: var(--card);
  stroke-width: 2;
}

.well .landing {
  fill: var(--jade);
}

.well .settled {
  stroke: var(--jade);
}

.stray .landing {
  fill: var(--card);
  stroke: var(--ink-soft);
  stroke-width: 2;
}

.flat:not(.stray) .landing {
  fill: var(--flat);
}

.flat .settled {
  stroke: var(--flat);
}

.sharp:not(.stray) .landing {
  fill: var(--sharp);
}

.sharp .settled {
  stroke: var(--sharp);
}

.under {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: baseline;
  justify-content: space-between;
}

.key {
  margin: 2px 0 0;
  font-size: 14px;
}
</style>
