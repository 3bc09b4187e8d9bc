import { computed, type Ref } from 'vue'
import { useLocalStorage } from '@vueuse/core'
import type { Finger } from '#core'
import type { CheckDraft, Reading } from '#contracts'

/** One row of the reading sheet: what the meter showed for one finger, as typed. */
export interface ReadingRow {
  readonly finger: Finger | 0
  readonly text: string
  readonly shownCents: readonly number[]
  /** What is wrong with the text, and what to do. */
  readonly fault: string | undefined
}

/** A save on its way: sent again with the same key until the server says it is kept. */
export interface PendingSave {
  readonly key: string
  readonly body: CheckDraft
}

interface Draft {
  readonly texts: Readonly<Record<string, string>>
  readonly pending: PendingSave | null
}

const EMPTY: Draft = { texts: {}, pending: null }
/** Past this the finger is on another note; the server holds the same limit. */
const MAX_CENTS = 99

/**
 * The reading sheet of one hand on one string. What is typed stays in this browser under `storageKey` until it is
 * kept, so a reload or a lost connection costs nothing.
 */
export function useReadings(fingers: Ref<readonly (Finger | 0)[]>, storageKey: Ref<string>) {
  const store = useLocalStorage<Record<string, Draft>>('jadefell.drafts', {})
  const draft = computed(() => store.value[storageKey.value] ?? EMPTY)

  function put(next: Draft) {
    const { [storageKey.value]: _, ...others } = store.value
    const isEmpty = next.pending === null && Object.values(next.texts).every((text) => text.trim() === '')
    store.value = isEmpty ? others : { ...others, [storageKey.value]: next }
  }

  const rows = computed<ReadingRow[]>(() =>
    fingers.value.map((finger) => {
      const text = draft.value.texts[finger] ?? ''
      return { finger, text, ...parseCents(text) }
    }),
  )
  const readings = computed<Reading[]>(() =>
    rows.value.flatMap(({ finger, shownCents }) =>
      shownCents.map((cents) => ({ finger, shownCents: cents })),
    ),
  )

  return {
    rows,
    readings,
    hasFault: computed(() => rows.value.some((row) => row.fault !== undefined)),
    pending: computed(() => draft.value.pending),
    /** A changed sheet is another save. */
    type: (finger: Finger | 0, text: string) =>
      put({ texts: { ...draft.value.texts, [finger]: text }, pending: null }),
    setPending: (pending: PendingSave) => put({ ...draft.value, pending }),
    clear: () => put(EMPTY),
  }
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
  const tooFar = numbers.find((n) => Math.abs(n) > MAX_CENTS)
  if (tooFar !== undefined)
    return {
      shownCents: [],
      fault: `${Math.abs(tooFar)} cents is another note: type −${MAX_CENTS} to ${MAX_CENTS}.`,
    }
  return { shownCents: numbers, fault: undefined }
}
