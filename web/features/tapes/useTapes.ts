import { defineStore, storeToRefs } from 'pinia'
import { computed, type Ref } from 'vue'
import {
  actsAsFret,
  askewTape,
  chartTapes,
  handMarks,
  heightOverBoardMm,
  girthBoundsMm,
  isThere,
  marksOfSchool,
  marksWithIds,
  parseLength,
  parseNote,
  planTapes,
  ringRows,
  rowsToLayBy,
  schoolOf,
  shapeExercise,
  shapeOf,
  silentMarks,
  tapePiece,
  targetsOf,
  whereabouts,
  type AskewTape,
  type MarkSpec,
  type Stringing,
  type TapeMark,
  type TapePiece,
  type TapeShape,
  type Whereabouts,
} from '#core'
import type { BoardTape, BoardTarget } from '../../board/board'
import { BY_HAND, useBench, type BenchSetup } from '../../stores/bench'
import { thickTapeSentence } from '../../words/places'
import { markName, shortMarkName } from '../../words/trade'
import { noteLabel } from '../../words/notes'

/** The tapes that follow from the bench's settings and its strings. */
export function useTapeChart(setup: Ref<BenchSetup>, stringing: Ref<Stringing>) {
  const family = computed(() => stringing.value.family)
  const chosenMarks = computed<MarkSpec[]>(() => {
    if (setup.value.schoolId === BY_HAND) return marksWithIds(family.value, setup.value.markIds)
    const school = schoolOf(family.value, setup.value.schoolId)
    return school ? marksOfSchool(family.value, school) : []
  })
  const tape = computed<TapeShape>(() => ({
    widthMm: setup.value.tapeWidthMm,
    contact: setup.value.contact,
  }))
  /** They hold for every length, so while one is typed they are made once. */
  const tuned = computed(() => ({ tuning: stringing.value.tuning, system: stringing.value.system }))
  const plan = computed(() => planTapes(tuned.value, chosenMarks.value))
  const chartOf = (strings: Stringing) => chartTapes(strings, plan.value, tape.value)
  const marks = computed(() => chartOf(stringing.value))
  /** Asked for, and nowhere to be pressed on these strings. */
  const withoutPlace = computed(() => plan.value.filter((mark) => !isThere(stringing.value, mark)))

  const boardTapes = computed<BoardTape[]>(() =>
    marks.value.map((mark) => ({ ...mark, label: shortMarkName(mark) })),
  )
  const boardTargets = computed<BoardTarget[]>(() => {
    // The string to lay by: the second from the bottom rings with its upper neighbours on every family.
    const { tuning } = stringing.value
    const shape = shapeOf(family.value, family.value.defaultShapeId)
    if (!shape) return []
    const exercise = shapeExercise(tuning, Math.min(1, tuning.length - 1), shape)
    return targetsOf(stringing.value, exercise).flatMap(({ stringIndex, finger, placeMm, note }) =>
      finger === 0 ? [] : [{ stringIndex, finger, placeMm, note: noteLabel(note) }],
    )
  })

  /** A girth that was measured is that of the first tape. */
  const girthBounds = computed(() => girthBoundsMm(stringing.value.board, marks.value[0]?.middleMm ?? 0))
  const girthMm = computed(() => {
    const parsed = parseLength(setup.value.girthText)
    const [low, high] = girthBounds.value
    return parsed.ok && parsed.lengthMm >= low && parsed.lengthMm <= high ? parsed.lengthMm : undefined
  })
  function pieceOf(mark: TapeMark): TapePiece {
    const [first] = marks.value
    const measured =
      girthMm.value === undefined || !first ? undefined : { girthMm: girthMm.value, placeMm: first.middleMm }
    return tapePiece(stringing.value.board, mark.middleMm, measured)
  }

  return {
    allMarks: computed(() => handMarks(family.value)),
    chosenMarks,
    plan,
    chartOf,
    marks,
    withoutPlace,
    /** Without what rings taught: what removing every find would restore. */
    marksBeforeRings: computed(() =>
      stringing.value.calibration ? chartOf({ ...stringing.value, calibration: undefined }) : marks.value,
    ),
    /** Without pressing: how much it moves each tape is never kept silent. */
    marksUnpressed: computed(() =>
      stringing.value.pressing ? chartOf({ ...stringing.value, pressing: undefined }) : marks.value,
    ),
    boardTapes,
    boardTargets,
    girthMm,
    girthBounds,
    pieceOf,
  }
}

/** Less than an eye squares a tape to. Common practice, no source. */
const LEAST_ASKEW_DEGREES = 0.5

/** The tapes of the bench, and what rings at them. */
export const useTapes = defineStore('tapes', () => {
  const bench = useBench()
  const { setup, stringing } = storeToRefs(bench)
  const chart = useTapeChart(setup, stringing)

  const rowsOf = (mark: TapeMark) => ringRows(stringing.value, mark)
  const rows = computed(() => chart.marks.value.flatMap(rowsOf))

  /** A tape that may stop the string itself, as a fret does: where first, and how many cents sharp. */
  const thickness = computed(() => {
    const { tapeThicknessMm } = setup.value
    const mark = chart.marks.value.find((m) =>
      actsAsFret(tapeThicknessMm, heightOverBoardMm(stringing.value, m.middleMm)),
    )
    return mark && thickTapeSentence(tapeThicknessMm, Math.round(mark.widthCents / 2), markName(mark))
  })

  /** Finds as the calibration sees them: how far off, whether questioned, and where they may really belong. */
  const judgedFinds = computed(() =>
    bench.usedFinds.map((find, i) => {
      const judged = stringing.value.calibration!.finds[i]!
      const belongs: Whereabouts | undefined = judged.isQuestioned
        ? whereabouts(stringing.value, chart.marks.value, find, parseNote(find.note)!)
        : undefined
      return { find, ...judged, belongs }
    }),
  )

  return {
    ...chart,
    rowsOf,
    /** How a tape lies with a bridge that stands askew, where each string wants it; undefined where it is laid square. */
    askewOf(mark: TapeMark): AskewTape | undefined {
      const planned = chart.plan.value.find(({ id }) => id === mark.id)
      if (bench.bridge?.code !== 'askew' || !planned) return undefined
      const askew = askewTape(stringing.value, planned)
      return Math.abs(askew.degrees) < LEAST_ASKEW_DEGREES ? undefined : askew
    },
    /** What to lay a tape by, the best string first. */
    layRowsOf: (mark: TapeMark) => rowsToLayBy(stringing.value, mark),
    rows,
    thickness,
    silent: computed(() => silentMarks(rows.value, chart.marks.value)),
    judgedFinds,
  }
})
