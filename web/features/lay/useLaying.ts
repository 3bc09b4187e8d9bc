import { computed, reactive, ref, type Ref } from 'vue'
import { parseLength, type TapeMark } from '#core'
import type { LaidTape } from '../tapes/useKeepOnInstrument'

/** What a ruler and an eye can tell apart, mm; with the shift key ten times that. */
export const FINE_MM = 0.1
export const COARSE_MM = 0.5

/** One tape on its way to the board. */
export interface LayStep {
  /** Where it rang; what was computed until somebody says otherwise. */
  foundMm: number
  isSquared: boolean
  isWrapped: boolean
  /** Left out on the way: nothing of it is logged. */
  isSkipped: boolean
}

/** Laying tape after tape: before the first come the tuning and the cautions, after the last what was done. */
export function useLaying(marks: Ref<readonly TapeMark[]>, lengthMm: Ref<number>) {
  const at = ref(-1)
  const steps = reactive(
    new Map<string, LayStep>(
      marks.value.map((mark) => [
        mark.id,
        { foundMm: rounded(mark.middleMm), isSquared: false, isWrapped: false, isSkipped: false },
      ]),
    ),
  )
  const mark = computed(() => marks.value[at.value])
  const step = computed(() => mark.value && steps.get(mark.value.id))
  const isOver = computed(() => at.value >= marks.value.length)
  const canGoOn = computed(
    () => !step.value || (step.value.isSquared && step.value.isWrapped) || step.value.isSkipped,
  )

  function find(placeMm: number) {
    if (step.value) step.value.foundMm = rounded(Math.min(lengthMm.value - 1, Math.max(1, placeMm)))
  }

  return {
    at,
    mark,
    step,
    steps,
    isOver,
    canGoOn,
    nudge: (byMm: number) => find((step.value?.foundMm ?? 0) + byMm),
    /** Takes a place as typed; false when it is none. */
    type(text: string): boolean {
      const parsed = parseLength(text)
      if (!parsed.ok || parsed.lengthMm >= lengthMm.value) return false
      find(parsed.lengthMm)
      return true
    },
    next() {
      if (canGoOn.value) at.value = Math.min(marks.value.length, at.value + 1)
    },
    back: () => (at.value = Math.max(-1, at.value - 1)),
    skip() {
      if (step.value) step.value.isSkipped = true
      at.value = Math.min(marks.value.length, at.value + 1)
    },
    laid: computed<LaidTape[]>(() =>
      marks.value.flatMap(({ id }) => {
        const done = steps.get(id)
        return done && !done.isSkipped ? [{ markId: id, placeMm: done.foundMm }] : []
      }),
    ),
  }
}

function rounded(mm: number): number {
  return Math.round(mm * 10) / 10
}
