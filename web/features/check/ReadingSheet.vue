<template>
  <p v-if="by === 'eye'" class="soft how">Against the tape: b behind, o on, p past.</p>
  <p v-else-if="by === 'ruler'" class="soft how">From its place; towards the bridge is positive.</p>
  <table class="ledger">
    <caption class="visually-hidden">
      {{ CAPTIONS[by]
      }}, finger by finger
    </caption>
    <thead>
      <tr>
        <th scope="col">Finger</th>
        <th scope="col" class="number wide">place</th>
        <th v-if="by === 'meter'" scope="col" class="number wide">should show</th>
        <th scope="col">{{ COLUMNS[by] }}</th>
        <th scope="col" class="number">landing</th>
        <th scope="col" class="number wide">in {{ unitName() }}</th>
      </tr>
    </thead>
    <tbody ref="body">
      <tr v-for="row in lines" :key="row.id">
        <th scope="row">
          <span v-if="row.string" class="string soft">{{ row.string }}</span>
          <span class="finger">{{ row.finger === 0 ? 'Open' : fingerSign(row.finger) }}</span> {{ row.note }}
        </th>
        <td class="number soft wide">{{ row.place }}</td>
        <td v-if="by === 'meter'" class="number soft wide">{{ row.shouldShow }}</td>
        <td class="entry" :class="{ eye: by === 'eye' && row.finger !== 0 }">
          <input
            :value="row.text"
            inputmode="text"
            :data-takes="by === 'eye' && row.finger !== 0 ? 'sides' : 'number'"
            autocomplete="off"
            :aria-label="row.spoken"
            :aria-invalid="row.fault !== undefined"
            :aria-describedby="row.fault ? `fault-${row.at}` : undefined"
            :placeholder="row.kept ?? hintOf(row)"
            maxlength="200"
            @input="emit('type', row.id, ($event.target as HTMLInputElement).value)"
            @keydown.enter.prevent="onEnter($event, row.at)"
            @keydown.down.prevent="focusRow(row.at + 1)"
            @keydown.up.prevent="focusRow(row.at - 1)"
          />
          <span v-if="by === 'eye' && row.finger !== 0" class="sides">
            <button
              v-for="side in SIDES"
              :key="side"
              type="button"
              :aria-label="`${row.spoken}: ${side}`"
              @click="emit('type', row.id, `${row.text} ${side.charAt(0)}`.trim())"
            >
              {{ side }}
            </button>
          </span>
          <span v-if="row.fault" :id="`fault-${row.at}`" class="fault">{{ row.fault }}</span>
        </td>
        <td class="number landing" :class="row.side">
          {{ row.landing }}<small v-if="row.inMm" class="narrow">{{ row.inMm }} {{ unitName() }}</small>
        </td>
        <td class="number wide">{{ row.inMm }}</td>
      </tr>
    </tbody>
  </table>
</template>

<script setup lang="ts">
import { fingerSign } from '../../words/fingers'
import { computed, ref } from 'vue'
import { isSamePlace, SIDES, type Exercise, type LandedPlace, type Note, type Target } from '#core'
import { inUnit, signedCents, signedInUnit, unitName } from '../../words/numbers'
import type { ReadBy } from './readings-text'
import type { ReadingRow } from './useReadings'
import { noteLabel } from '../../words/notes'

const props = defineProps<{
  /** How readings are taken. */
  by: ReadBy
  rows: readonly ReadingRow[]
  /** The exercise, and its places, one a row. */
  exercise: Exercise
  targets: readonly Target[]
  /** What was read and heard. */
  places: readonly LandedPlace[]
  tuning: readonly Note[]
  toleranceCents: number
}>()
const emit = defineEmits<{
  /** In the row with this id. */
  type: [id: string, text: string]
  /** Enter on the last finger. */
  done: []
}>()

const COLUMNS: Readonly<Record<ReadBy, string>> = {
  meter: 'meter shows, cents',
  ruler: 'off by, mm',
  eye: 'seen at its tape',
}
const CAPTIONS: Readonly<Record<ReadBy, string>> = {
  meter: 'What the meter showed, in cents',
  ruler: 'How far off the finger stood, in mm',
  eye: 'Where the finger was seen against its tape',
}
const SPOKEN: Readonly<Record<ReadBy, string>> = { meter: 'cents', ruler: 'mm', eye: 'by eye' }

/** More than one string: each row says which. */
const areSeveral = computed(() => new Set(props.targets.map((t) => t.stringIndex)).size > 1)
function stringName(stringIndex: number): string {
  const open = props.tuning[stringIndex]
  return open ? noteLabel(open, { octave: false }) : ''
}

/** Said on an empty sheet, where it would be typed: one field takes several notes. */
const SEVERAL: Readonly<Record<ReadBy, string>> = { meter: 'e.g. −22 −20', ruler: 'e.g. −2 −1.5', eye: '' }
function hintOf({ finger, at }: { finger: number; at: number }): string {
  if (finger === 0) return 'if heard'
  const isFirst = props.rows.findIndex((row) => row.finger !== 0) === at
  return isFirst && props.rows.every((row) => row.text === '') ? SEVERAL[props.by] : ''
}

const lines = computed(() =>
  props.rows.map((row, at) => {
    const { notes } = props.exercise
    const place = row.index === null ? notes.find((n) => n.finger === row.finger) : notes[row.index]
    const target = place && props.targets.find((t) => isSamePlace(t, place))
    const heard = place && props.places.find((one) => isSamePlace(one.target, place))
    const open = areSeveral.value && place ? stringName(place.stringIndex) : ''
    const cents = heard?.meanCents
    const isOff = cents !== undefined && Math.abs(cents) > props.toleranceCents
    return {
      ...row,
      at,
      string: open,
      spoken: `${open ? `${open} string, ` : ''}${row.finger === 0 ? 'Open string, cents' : `Finger ${fingerSign(row.finger)}, ${SPOKEN[props.by]}`}`,
      note: target ? noteLabel(target.note, { octave: false }) : '',
      place: target && row.finger !== 0 ? inUnit(target.placeMm) : '',
      shouldShow: target ? signedCents(target.meterCents) : '',
      landing: cents === undefined ? '' : isOff ? marked(cents) : signedCents(cents),
      side: isOff ? (cents > 0 ? 'sharp' : 'flat') : '',
      inMm: heard && row.finger !== 0 ? signedInUnit(heard.meanMm) : '',
    }
  }),
)

const body = ref<HTMLElement>()
function focusRow(index: number) {
  const inputs = body.value?.querySelectorAll('input') ?? []
  const input = inputs[Math.min(inputs.length - 1, Math.max(0, index))]
  input?.focus()
  input?.select()
}

function onEnter(event: KeyboardEvent, index: number) {
  if (event.ctrlKey || event.metaKey || index === lines.value.length - 1) emit('done')
  else focusRow(index + 1)
}

function marked(cents: number): string {
  return cents > 0 ? `${signedCents(cents)} ▶` : `◀ ${signedCents(cents)}`
}

/** Starts with the first finger: the open string is read only when somebody doubts it. */
defineExpose({
  begin: () =>
    focusRow(
      Math.max(
        0,
        props.rows.findIndex((row) => row.finger !== 0),
      ),
    ),
})
</script>

<style scoped>
.how {
  margin: 8px 0 0;
  font-size: 15px;
}

.entry.eye {
  white-space: nowrap;
}

.entry.eye input {
  width: 84px;
}

.sides {
  display: inline-flex;
  gap: 4px;
  margin-left: 6px;
}

.sides button {
  min-height: 34px;
  padding: 0 8px;
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  background: transparent;
  color: var(--ink);
  font: 500 14px var(--font-text);
  cursor: pointer;
}

.sides button:focus-visible {
  outline: 2.5px solid var(--focus);
}

th[scope='row'] {
  padding: 4px 8px;
  border-bottom: 1px solid var(--line);
  color: var(--ink);
  font-size: 17px;
  font-weight: 400;
}

.finger {
  display: inline-block;
  min-width: 22px;
  font-weight: 700;
}

.string {
  display: inline-block;
  min-width: 24px;
}

td {
  padding: 3px 8px;
}

input {
  width: 130px;
  height: 34px;
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  padding: 0 10px;
  background: var(--card);
  color: var(--ink);
  font: 600 20px/1 var(--font-text);
  font-variant-numeric: tabular-nums;
}

input:focus {
  outline: 2.5px solid var(--focus);
  outline-offset: 0;
  border-color: transparent;
}

input::placeholder {
  color: var(--ink-soft);
  font: 400 15px var(--font-text);
}

input[aria-invalid='true'] {
  border-color: var(--danger);
}

.entry .fault {
  display: block;
  max-width: 250px;
  margin-top: 3px;
  font-size: 14px;
  line-height: 1.25;
}

.landing {
  font-weight: 700;
  font-size: 18px;
  white-space: nowrap;
}

.narrow {
  display: none;
}

/* On a phone: the finger, the number, and where it landed. */
@media (width <= 560px) {
  .wide {
    display: none;
  }

  .narrow {
    display: block;
    color: var(--ink-soft);
    font-size: 13px;
    font-weight: 400;
  }

  input {
    width: 104px;
  }
}

.flat {
  color: var(--flat);
}

.sharp {
  color: var(--sharp);
}
</style>
