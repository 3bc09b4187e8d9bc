/** What was typed of one exercise. */
export interface TypedEntry {
  minutes: string
  times: string
}

const MOST_MINUTES = 240
const MOST_TIMES = 1000

/** Minutes and repetitions as they were typed; nothing typed was not done, and anything but whole numbers is refused. */
export function entryOf({ minutes, times }: TypedEntry):
  | {
      readonly ok: true
      readonly isDone: boolean
      readonly minutes: number | null
      readonly times: number | null
    }
  | { readonly ok: false } {
  const [m, t] = [wholeOf(minutes, MOST_MINUTES), wholeOf(times, MOST_TIMES)]
  if (m === undefined || t === undefined) return { ok: false }
  return { ok: true, isDone: m !== null || t !== null, minutes: m, times: t }
}

/** Null of nothing, or of none; undefined of what is no such number. */
function wholeOf(text: string, most: number): number | null | undefined {
  const trimmed = text.trim()
  if (trimmed === '') return null
  if (!/^\d+$/.test(trimmed)) return undefined
  const value = Number(trimmed)
  return value > most ? undefined : value === 0 ? null : value
}
