import { computed, type Ref } from 'vue'
import { MAX_METER_CENTS, type Finger } from '#core'
import type { MeterReading } from '#contracts'
import { useDrafts } from '../../stores/drafts'
import { useKeptCheck } from '../../stores/kept-check'

/** One row of the reading sheet: what the meter showed for one finger, as typed. */
export interface ReadingRow {
  readonly finger: Finger | 0
  readonly text: string
  /** What was kept from this row last, as long as its verdict stays. */
  readonly kept: string | undefined
  readonly shownCents: readonly number[]
  /** What is wrong with the text, and what to do. */
  readonly fault: string | undefined
}

/**
 * The reading sheet of one exercise. What is typed stays in this browser as the draft `sheet` until it is kept, so a reload
 * or a lost connection costs nothing.
 */
export function useReadings(fingers: Ref<readonly (Finger | 0)[]>, sheet: Ref<string>) {
  const drafts = useDrafts()
  const keptCheck = useKeptCheck()
  /** What was kept from this sheet last, as long as its verdict stays. */
  const keptTexts = computed(() => (keptCheck.kept?.sheet === sheet.value ? keptCheck.kept.texts : undefined))
  const texts = computed(() => drafts.textsOf(sheet.value))
  const rows = computed<ReadingRow[]>(() =>
    fingers.value.map((finger) => {
      const text = texts.value[finger] ?? ''
      return { finger, text, kept: keptTexts.value?.[finger], ...parseCents(text) }
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
    type: (finger: Finger | 0, text: string) => drafts.type(sheet.value, String(finger), text),
    clear: () => drafts.clear(sheet.value),
  }
}

function readingsOf({ finger, shownCents }: ReadingRow): MeterReading[] {
  return shownCents.map((cents) => ({ finger, shownCents: cents }))
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
