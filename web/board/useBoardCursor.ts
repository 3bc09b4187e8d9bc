import { computed, ref, type Ref } from 'vue'
import { type Stringing } from '#core'
import { readPlace, type BoardScale } from './board'
import { noteLabel } from '../words/notes'

const KEY_STEP_MM = 0.5
const NEAR_MM = 0.05

/** How a board lies, and what is drawn on it. */
export interface CursorBoard {
  readonly stringing: () => Stringing
  readonly scale: Ref<BoardScale>
  /** Places to go from one to the next, in order from the nut, mm. */
  readonly marks: Ref<readonly number[]>
  readonly activeString: () => number | undefined
  readonly isFlipped: Ref<boolean>
  readonly isUpright: Ref<boolean>
  readonly frame: Ref<HTMLElement | undefined>
  readonly frameWidth: Ref<number>
  /** Of the drawing across the strings. */
  readonly height: Ref<number>
}

/** The place somebody points at, by pointer or by keys, and what is there. */
export function useBoardCursor(board: CursorBoard) {
  const { stringing, scale, marks, isFlipped, isUpright } = board
  const cursorMm = ref<number>()
  const cursorString = ref<number>()
  const lastString = computed(() => stringing().tuning.length - 1)
  const focusString = computed(() => cursorString.value ?? board.activeString() ?? lastString.value)
  const openName = computed(() => {
    const open = stringing().tuning[focusString.value]
    return open ? noteLabel(open, { octave: false }) : ''
  })
  const reading = computed(() =>
    cursorMm.value === undefined ? undefined : readPlace(stringing(), focusString.value, cursorMm.value),
  )

  function readOn(stringIndex: number, placeMm: number) {
    cursorString.value = stringIndex
    cursorMm.value = Math.min(scale.value.reachMm, Math.max(0, placeMm))
  }

  function onMove(event: MouseEvent) {
    const box = board.frame.value?.getBoundingClientRect()
    if (!box) return
    const [right, down] = [event.clientX - box.left, event.clientY - box.top]
    // Turned on end, the strings run downwards and the drawing's top lies at the right, in the middle of the frame.
    const left = (board.frameWidth.value - board.height.value) / 2
    const [x, y] = isUpright.value ? [down, board.height.value - (right - left)] : [right, down]
    const placeMm = scale.value.along.invert(x)
    if (placeMm < 0 || placeMm > scale.value.reachMm) return void (cursorMm.value = undefined)
    const distances = stringing().tuning.map((_, i) => Math.abs(scale.value.stringY(i, placeMm) - y))
    readOn(distances.indexOf(Math.min(...distances)), placeMm)
  }

  function stringBeside(by: number): number {
    const step = isFlipped.value ? -by : by
    return Math.min(lastString.value, Math.max(0, focusString.value + step))
  }

  function onKey(event: KeyboardEvent) {
    const at = cursorMm.value ?? 0
    const along = isFlipped.value ? -KEY_STEP_MM : KEY_STEP_MM
    const [further, back, up, down] = isUpright.value
      ? ['ArrowDown', 'ArrowUp', 'ArrowRight', 'ArrowLeft']
      : ['ArrowRight', 'ArrowLeft', 'ArrowUp', 'ArrowDown']
    const moves: Record<string, () => void> = {
      [further]: () => readOn(focusString.value, at + along),
      [back]: () => readOn(focusString.value, at - along),
      [up]: () => readOn(stringBeside(1), at),
      [down]: () => readOn(stringBeside(-1), at),
      PageUp: () =>
        readOn(focusString.value, marks.value.find((m) => m > at + NEAR_MM) ?? scale.value.reachMm),
      PageDown: () => readOn(focusString.value, marks.value.findLast((m) => m < at - NEAR_MM) ?? 0),
      Home: () => readOn(focusString.value, 0),
      End: () => readOn(focusString.value, scale.value.reachMm),
    }
    const move = moves[event.key]
    if (!move || event.target !== board.frame.value) return
    event.preventDefault()
    move()
  }

  return { cursorMm, reading, openName, focusString, readOn, onMove, onKey }
}
