import { computed, ref, watch, type Ref } from 'vue'
import { parseLength, type TapeMark } from '#core'
import type { LaidTape } from './useKeepOnInstrument'

/** What a ruler and an eye can tell apart, mm; with the shift key ten times that. */
export const FINE_MM = 0.1
export const COARSE_MM = 0.5

/** One tape on its way to the board. */
export interface LayStep {
  /** Where it rang; what was computed until somebody says otherwise. */
  foundMm: number
  /** Where it was computed before the tapes before it rang. */
  plannedMm: number
  /** Somebody has said where it rang: nothing moves it any more. */
  isFound: boolean
  isSquared: boolean
  isWrapped: boolean
  /** Left out on the way: nothing of it is logged. */
  isSkipped: boolean
}

/** What is ticked of every tape, in the order in which it is done. */
export const TICKS = ['isSquared', 'isWrapped'] as const
export type Tick = (typeof TICKS)[number]

/** How far laying has come. Plain data: a reload in mid-tape loses no place that was found. */
export interface LayState {
  /** The tapes it is about; another set of tapes begins anew. */
  of: string
  /** As they were when laying began, corrected by what rang on the way; none moves under the teacher's hand. */
  marks: TapeMark[]
  at: number
  steps: Record<string, LayStep>
}

export const NOT_BEGUN: LayState = { of: '', marks: [], at: -1, steps: {} }

/**
 * Laying tape after tape: before the first come the tuning and the cautions, after the last what was done. `of` says what
 * is laid: while it is the same, laying goes on where it was; something else begins with the tapes as they are `now`.
 */
export function useLaying(now: readonly TapeMark[], lengthMm: Ref<number>, state: Ref<LayState>, of: string) {
  if (state.value.of !== of)
    state.value = {
      of,
      marks: [...now],
      at: -1,
      steps: Object.fromEntries(
        now.map((mark) => [
          mark.id,
          {
            foundMm: rounded(mark.middleMm),
            plannedMm: mark.middleMm,
            isFound: false,
            isSquared: false,
            isWrapped: false,
            isSkipped: false,
          },
        ]),
      ),
    }
  const marks = computed(() => state.value.marks)
  const at = computed({ get: () => state.value.at, set: (to) => (state.value.at = to) })
  const mark = computed(() => marks.value[at.value])
  const step = computed(() => mark.value && state.value.steps[mark.value.id])
  const isOver = computed(() => at.value >= marks.value.length)
  /** What is still to be ticked before the next tape. */
  const missing = computed(() =>
    !step.value || step.value.isSkipped ? [] : TICKS.filter((tick) => !step.value![tick]),
  )
  /** Somebody wanted to go on before all was ticked. */
  const wasAsked = ref(false)
  watch(at, () => (wasAsked.value = false))

  function find(placeMm: number) {
    if (!step.value) return
    step.value.foundMm = rounded(Math.min(lengthMm.value - 1, Math.max(1, placeMm)))
    step.value.isFound = true
  }

  return {
    marks,
    at,
    mark,
    step,
    isOver,
    missing,
    /** Said once it is asked for: what the next tape waits for. */
    waitsFor: computed(() => (wasAsked.value ? missing.value : [])),
    set(what: Tick, to: boolean) {
      if (step.value) step.value[what] = to
    },
    nudge: (byMm: number) => find((step.value?.foundMm ?? 0) + byMm),
    /** Takes a place as typed; false when it is none. */
    type(text: string): boolean {
      const parsed = parseLength(text)
      if (!parsed.ok || parsed.lengthMm >= lengthMm.value) return false
      find(parsed.lengthMm)
      return true
    },
    next() {
      wasAsked.value = missing.value.length > 0
      if (!wasAsked.value) at.value = Math.min(marks.value.length, at.value + 1)
    },
    /** Moves the tapes from this one on to where they belong by now; those that somebody has found or laid stay. */
    correct(to: readonly TapeMark[]) {
      state.value.marks = marks.value.map((mark, i) => {
        const done = state.value.steps[mark.id]
        const better = to.find((m) => m.id === mark.id)
        if (i < at.value || !done || !better || done.isFound || done.isSquared || done.isWrapped) return mark
        done.foundMm = rounded(better.middleMm)
        return better
      })
    },
    back: () => (at.value = Math.max(-1, at.value - 1)),
    skip() {
      if (step.value) step.value.isSkipped = true
      at.value = Math.min(marks.value.length, at.value + 1)
    },
    /** Done with: the next laying begins anew. */
    end: () => (state.value = { ...NOT_BEGUN }),
    laid: computed<LaidTape[]>(() =>
      marks.value.flatMap(({ id }) => {
        const done = state.value.steps[id]
        return done && !done.isSkipped ? [{ markId: id, placeMm: done.foundMm }] : []
      }),
    ),
  }
}

function rounded(mm: number): number {
  return Math.round(mm * 10) / 10
}
