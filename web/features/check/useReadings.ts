import { useLocalStorage } from '@vueuse/core'
import { computed, ref, type Ref } from 'vue'
import { isSamePlace, noteName, placesOf, type Digit, type Exercise } from '#core'
import type { Reading } from '#contracts'
import { useDrafts } from '../../stores/drafts'
import { useKeptCheck } from '../../stores/kept-check'
import { parseReadings, READ_BY, withUnits, type ReadBy, type ReadText } from './readings-text'

/** A place of the exercise that a row of the sheet is for. */
export interface SheetPlace {
  /** Field of the draft. */
  readonly id: string
  readonly finger: Digit
  /** Which note of the exercise; null where its finger has one note only. */
  readonly index: number | null
}

/** One row of the reading sheet: what was read of one place, as typed. */
export interface ReadingRow extends SheetPlace, ReadText {
  readonly text: string
  /** What was kept from this row last, as long as its verdict stays. */
  readonly kept: string | undefined
}

/** Field of a sheet’s draft that says how it is read. */
const BY_FIELD = 'by'

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
export function useReadings(
  places: Ref<readonly SheetPlace[]>,
  sheet: Ref<string>,
  halfStepMm: Ref<number | undefined> = ref(undefined),
) {
  const drafts = useDrafts()
  const keptCheck = useKeptCheck()
  /** How this teacher reads, until another way is chosen. */
  const usualBy = useLocalStorage<ReadBy>('jadefell.read-by', 'meter')
  /** What was kept from this sheet last, as long as its verdict stays. */
  const keptTexts = computed(() => (keptCheck.kept?.sheet === sheet.value ? keptCheck.kept.texts : undefined))
  const texts = computed(() => drafts.textsOf(sheet.value))
  const isTyped = computed(() => places.value.some(({ id }) => (texts.value[id] ?? '').trim() !== ''))
  const by = computed<ReadBy>(
    () => readBy(texts.value[BY_FIELD]) ?? (isTyped.value ? 'meter' : usualBy.value),
  )
  const parse = (place: SheetPlace, text: string, how: ReadBy) =>
    parseReadings(text, {
      by: how,
      isOpen: place.finger === 0,
      ...(halfStepMm.value !== undefined && { halfStepMm: halfStepMm.value }),
    })
  const rows = computed<ReadingRow[]>(() =>
    places.value.map((place) => {
      const text = texts.value[place.id] ?? ''
      return { ...place, text, kept: keptTexts.value?.[place.id], ...parse(place, text, by.value) }
    }),
  )
  const readings = computed(() => rows.value.flatMap(readingsOf))

  /** What is typed already stays what it is. */
  function readWith(how: ReadBy) {
    usualBy.value = how
    if (!isTyped.value || how === by.value) return
    const before = by.value
    for (const { id, finger, text } of rows.value)
      if (text) drafts.type(sheet.value, id, withUnits(text, finger === 0 ? 'meter' : before))
    drafts.type(sheet.value, BY_FIELD, how)
  }

  return {
    sheet,
    rows,
    readings,
    by: computed({ get: () => by.value, set: readWith }),
    /** Meter, ruler, eye, and round again. */
    readOtherwise: () => readWith(READ_BY[(READ_BY.indexOf(by.value) + 1) % READ_BY.length]!),
    /** What a verdict is given on: what is typed, or what was kept last. */
    judged: computed(() => {
      const kept = keptTexts.value
      if (!kept || readings.value.length > 0) return readings.value
      const how = readBy(kept[BY_FIELD]) ?? 'meter'
      return rows.value.flatMap((row) => readingsOf({ ...row, ...parse(row, row.kept ?? '', how) }))
    }),
    hasFault: computed(() => rows.value.some((row) => row.fault !== undefined)),
    type(id: string, text: string) {
      const how = by.value
      drafts.type(sheet.value, id, text)
      // A sheet that is empty again says nothing of how it was read.
      if (how !== 'meter') drafts.type(sheet.value, BY_FIELD, isTyped.value ? how : '')
    },
    clear: () => drafts.clear(sheet.value),
  }
}

function readBy(text: string | undefined): ReadBy | undefined {
  return READ_BY.find((how) => how === text)
}

function readingsOf({ finger, index, told }: ReadingRow): Reading[] {
  return told.map((one) => ({ finger, ...(index !== null && { index }), ...one }))
}
