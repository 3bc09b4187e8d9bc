import { useSessionStorage } from '@vueuse/core'
import { computed } from 'vue'
import {
  placedStops,
  shiftBetween,
  type Finger,
  type Placement,
  type Position,
  type ShiftResult,
} from '#core'
import type { BoardFinger } from '../../board/board'
import { useBench } from '../../stores/bench'
import { inUnit, length, signedInUnit } from '../../words/numbers'
import { extensionSentence } from '../../words/patterns'
import { positionName, shortPositionName } from '../../words/positions'
import type { Patterns } from './usePatterns'
import { noteLabel } from '../../words/notes'

interface ShiftChoice {
  fromId: string
  toId: string
  /** 0 the open string. */
  fromFinger: Finger | 0
  toFinger: Finger
}

/** Two fingers nearer than this on one string are drawn as one, mm. */
const SAME_PLACE_MM = 1.5

/** A shift in the key and on the string of the atlas: from where to where, what guides it, and every other one beside it. */
export function useShift(patterns: Patterns) {
  const { atlas } = patterns
  const bench = useBench()
  const family = computed(() => atlas.family.value)
  const choice = useSessionStorage<ShiftChoice>('jadefell.shift', {
    fromId: 'first',
    toId: 'third',
    fromFinger: 1,
    toFinger: 1,
  })

  /** Another family has other positions and fingers: the nearest that it has. */
  const positionOf = (id: string, fallback: number): Position =>
    family.value.positions.find((p) => p.id === id) ?? family.value.positions[fallback]!
  const from = computed(() => positionOf(choice.value.fromId, 1))
  const to = computed(() => positionOf(choice.value.toId, 4))
  const offered = computed(
    () => Object.keys(family.value.frames[atlas.context.value.frameIndex]!.offsets).map(Number) as Finger[],
  )
  const fingerOf = (finger: Finger) => (offered.value.includes(finger) ? finger : 1)
  const fromFinger = computed<Finger | 0>({
    get: () => (choice.value.fromFinger === 0 ? 0 : fingerOf(choice.value.fromFinger)),
    set: (f) => (choice.value.fromFinger = f),
  })
  const toFinger = computed({
    get: () => fingerOf(choice.value.toFinger),
    set: (f) => (choice.value.toFinger = f),
  })
  const nameOf = (stringIndex: number) => noteLabel(atlas.tuning.value[stringIndex]!, { octave: false })
  const stringName = computed(() => nameOf(atlas.stringIndex.value))

  function shiftTo(position: Position, finger: Finger): ShiftResult {
    return shiftBetween(atlas.context.value, bench.stringing, {
      key: atlas.key.value,
      stringIndex: atlas.stringIndex.value,
      from: from.value,
      to: position,
      fromFinger: fromFinger.value,
      toFinger: finger,
    })
  }
  const result = computed(() => shiftTo(to.value, toFinger.value))
  const faultSentence = computed(() =>
    result.value.ok
      ? ''
      : `${positionName(result.value.position)} on the ${stringName.value} string reaches past the end of the board: choose a lower position.`,
  )
  /** What leads the hand, from where to where. */
  const guideSentence = computed(() => {
    if (!result.value.ok) return ''
    const { guide, guideFromMm, guideToMm, isGuideInKey, opens } = result.value.shift
    const way = `from ${inUnit(guideFromMm)} to ${length(guideToMm)}`
    const said = guide
      ? `${guide} guides: it slides lightly on the ${stringName.value} string ${way}, the thumb with it; then ${toFinger.value} plays ${arrival.value}.`
      : `The open string sounds while the hand moves, 1 ${way}, the thumb with it; then ${toFinger.value} plays ${arrival.value}.`
    const silent =
      guide && !(isGuideInKey.before && isGuideInKey.after)
        ? ` On a note beside the key: it guides without sounding.`
        : ''
    return `${said}${silent}${opens === 'none' ? '' : ` ${extensionSentence(opens)}`}`
  })
  /** The note that is played where the shift arrives. */
  const arrival = computed(() => {
    if (!result.value.ok) return ''
    const stop = result.value.shift.to.stops.find((s) => s.finger === toFinger.value)
    return stop ? noteLabel(stop.note, { octave: false }) : ''
  })
  /** Notes that are under the hand before and after. */
  const staying = computed(() => {
    if (!result.value.ok) return []
    return result.value.shift.staying.map(({ note, before, after }) => ({
      note: noteLabel(note),
      how: `${nameOf(before.stringIndex)} ${before.finger} → ${nameOf(after.stringIndex)} ${after.finger}`,
    }))
  })

  function fingersOf(placement: Placement, sounding: Finger | 0, isMarked: boolean): BoardFinger[] {
    return placedStops(bench.stringing, placement).map((stop) => ({
      stringIndex: placement.stringIndex,
      finger: stop.finger,
      placeMm: stop.placeMm,
      note: noteLabel(stop.note, { octave: false }),
      widthMm: patterns.fingertip.widthMm,
      isResting: false,
      isMarked,
      isPale: stop.finger !== sounding,
    }))
  }
  const boardFingers = computed<BoardFinger[]>(() => {
    if (!result.value.ok) return []
    const { shift } = result.value
    const both = [
      ...fingersOf(shift.from, fromFinger.value, false),
      ...fingersOf(shift.to, toFinger.value, true),
    ]
    // Where both hands have a finger at one place, the one that plays is shown, else the one that arrives.
    return both.filter(
      (f, i) => !f.isPale || !both.some((g, j) => i !== j && isSamePlace(f, g) && (!g.isPale || j > i)),
    )
  })

  return {
    from,
    fromId: computed({ get: () => from.value.id, set: (id) => (choice.value.fromId = id) }),
    toId: computed({ get: () => to.value.id, set: (id) => (choice.value.toId = id) }),
    fromFinger,
    toFinger,
    offered,
    stringName,
    result,
    faultSentence,
    guideSentence,
    arrival,
    staying,
    boardFingers,
    everyShift: computed(() =>
      family.value.positions.map((position) => {
        const shift = shiftTo(position, fromFinger.value || toFinger.value)
        return {
          id: position.id,
          name: shortPositionName(position),
          distance:
            position.id === from.value.id ? '0' : shift.ok ? signedInUnit(shift.shift.distanceMm) : '–',
        }
      }),
    ),
    /** From one position to its neighbours, as far as there are some. */
    step(which: 'fromId' | 'toId', by: number) {
      const list = family.value.positions
      const at = list.findIndex((p) => p.id === (which === 'fromId' ? from.value : to.value).id)
      choice.value[which] = list[Math.min(list.length - 1, Math.max(0, at + by))]!.id
    },
  }
}

function isSamePlace(a: BoardFinger, b: BoardFinger): boolean {
  return Math.abs(a.placeMm - b.placeMm) < SAME_PLACE_MM
}
