import { computed, type Ref } from 'vue'
import { isSamePlace, MAX_METER_CENTS, noteName, placesOf, type Exercise, type Finger } from '#core'
import type { MeterReading } from '#contracts'
import { useDrafts } from '../../stores/drafts'
import { useKeptCheck } from '../../stores/kept-check'

/** A place of the exercise that a row of the sheet is for. */
export interface SheetPlace {
  /** Field of the draft. */
  readonly id: string
  readonly finger: Finger | 0
  /** Which note of the exercise; null where its finger has one note only. */
  readonly index: number | null
}

/** One row of the reading sheet: what the meter showed for one place, as typed. */
export interface ReadingRow extends SheetPlace {
  readonly text: string
  /** What was kept from this row last, as long as its verdict stays. */
  readonly kept: string | undefined
  readonly shownCents: readonly number[]
  /** What is wrong with the text, and what to do. */
  readonly fault: string | undefined
}

/** The rows of an exercise’s sheet: of a hand one a finger, of a line one a place. */
export function sheetPlaces({ name, notes }: Exercise): SheetPlace[] {
  if (name.kind === 'shape') return notes.map(({ finger }) => ({ id: String(finger), finger, index: null }))
  return placesOf(notes).map((place) => ({
    id: [place.stringIndex, place.finger, noteName(place.note), place.positionId].join(' '),
    finger: place.finger,
    index: notes.findIndex((one) => isSamePlace(one, place)),
  }))
}

/**
 * The reading sheet of one exercise. What is typed stays in this browser as the draft `sheet` until it is kept, so a reload
 * or a lost connection costs nothing.
 */
export function useReadings(places: Ref<readonly SheetPlace[]>, sheet: Ref<string>) {
  const drafts = useDrafts()
  const keptCheck = useKeptCheck()
  /** What was kept from this sheet last, as long as its verdict stays. */
  const keptTexts = computed(() => (keptCheck.kept?.sheet === sheet.value ? keptCheck.kept.texts : undefined))
  const texts = computed(() => drafts.textsOf(sheet.value))
  const rows = computed<ReadingRow[]>(() =>
    places.value.map((place) => {
      const text = texts.value[place.id] ?? ''
      return { ...place, text, kept: keptTexts.value?.[place.id], ...parseCents(text) }
    }),
  )
  const readings = computed(() => rows.value.flatMap(readingsOf))
  return {
    sheet,
    rows,
    readings,
    /** What a verdict is given on: what is typed, or what was kept last. */
    judged: computed(() =>
      keptTexts.value && readings.value.length === 0
        ? rows.value.flatMap((row) => readingsOf({ ...row, ...parseCents(row.kept ?? '') }))
        : readings.value,
    ),
    hasFault: computed(() => rows.value.some((row) => row.fault !== undefined)),
    type: (id: string, text: string) => drafts.type(sheet.value, id, text),
    clear: () => drafts.clear(sheet.value),
  }
}

function readingsOf({ finger, index, shownCents }: ReadingRow): MeterReading[] {
  return shownCents.map((cents) => ({ finger, ...(index !== null && { index }), shownCents: cents }))
}

/** Several notes of one finger stand side by side: `-22 -20`. */
export function parseCents(text: string): Pick<ReadingRow, 'shownCents' | 'fault'> {
  const words = text.replaceAll('−', '-').replaceAll(',', '.').split(/\s+/).filter(Boolean)
  const numbers = words.map((word) => (/^[+-]?\d+(\.\d+)?$/.test(word) ? Number(word) : NaN))
  const strange = numbers.findIndex((n) => Number.isNaN(n))
  if (strange >= 0)
    return {
      shownCents: [],
      fault: `“${(words[strange] ?? '').slice(0, 20)}” is no number: type cents, as in −12.`,
    }
  const tooFar = numbers.find((n) => Math.abs(n) > MAX_METER_CENTS)
  if (tooFar !== undefined)
    return {
      shownCents: [],
      fault: `${Math.abs(tooFar)} cents is another note: type −${MAX_METER_CENTS} to ${MAX_METER_CENTS}.`,
    }
  return { shownCents: numbers, fault: undefined }
}
