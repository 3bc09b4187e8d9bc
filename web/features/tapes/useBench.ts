import { computed, watch, type Ref } from 'vue'
import {
  boardFor,
  chartTapes,
  familyOf,
  fitRings,
  handMarks,
  handTargets,
  heightFault,
  judgeStrings,
  marksOfSchool,
  marksWithIds,
  noteName,
  parseNote,
  placeOnBed,
  planTapes,
  pressShiftMm,
  schoolOf,
  shapeOf,
  stringHeightMm,
  tuningFault,
  type MarkSpec,
  type Note,
  type Pressing,
  type StringBed,
  type TapeShape,
} from '#core'
import type { Instrument } from '#contracts'
import type { BoardInstrument, BoardTape, BoardTarget } from '../../board/board'
import { shortMarkName } from '../../words/trade'
import { knownSystem } from '../check/useHand'
import { BY_HAND, type BenchSetup } from './setup'
import { useTypedLengths } from './useTypedLength'

/** A place found by ring, wherever it is kept. */
export interface BenchFind {
  readonly id: string
  readonly string: string
  readonly note: string
  readonly cents: number
  readonly placeMm: number
  readonly isTrusted: boolean
  readonly foundOn: string
}

/** What follows from the bench's settings, the instrument on it, and the places found by ring. */
export function useBench(
  setup: Ref<BenchSetup>,
  instrument: Ref<Instrument | undefined>,
  finds: Ref<readonly BenchFind[]>,
) {
  const family = computed(() => familyOf(setup.value.familyId))

  const typedTuning = computed(() => readTuning(setup.value.tuningText))
  const tuning = computed<readonly Note[]>(() => {
    if (typedTuning.value.ok && typedTuning.value.notes.length > 0) return typedTuning.value.notes
    const own = instrument.value?.tuning.flatMap((text) => parseNote(text) ?? [])
    return own ?? family.value.tuning
  })
  watch(
    () => tuning.value.length,
    (count) => {
      const texts = setup.value.stringTexts
      if (texts.length !== count)
        setup.value.stringTexts = Array.from({ length: count }, (_, i) => texts[i] ?? '')
    },
  )

  const lengths = useTypedLengths(setup, family)
  /** Before anything is measured the bench shows what is typical, and says so. */
  const isTypical = computed(() => lengths.usableMm.value === undefined)
  const typicalMm = computed(
    () =>
      family.value.sizes.find((s) => s.id === setup.value.sizeId)?.typicalLengthMm ??
      family.value.board.stringLengthMm,
  )
  const lengthsMm = computed(() => {
    const usable = lengths.usableMm.value
    // Between a string more in the tuning and a field more for its length there is a moment with too few.
    const fits = usable && (usable.length === 1 || usable.length === tuning.value.length)
    return fits ? usable : [typicalMm.value]
  })
  const lengthMm = computed(() => lengthsMm.value.reduce((a, b) => a + b) / lengthsMm.value.length)
  const bridge = computed(() =>
    lengthsMm.value.length > 1 ? judgeStrings(family.value, lengthsMm.value) : undefined,
  )

  const board = computed(() => boardFor(family.value, lengthMm.value))
  const typicalPressing = computed<Pressing>(() => {
    const scale = lengthMm.value / family.value.board.stringLengthMm
    const { nutHeightMm, endHeightMm, material } = family.value.typicalPressing
    return { nutHeightMm: nutHeightMm * scale, endHeightMm: endHeightMm * scale, material }
  })
  const pressingFault = computed(() =>
    setup.value.pressingMode === 'measured'
      ? (heightFault(setup.value.nutHeightMm) ?? heightFault(setup.value.endHeightMm))
      : undefined,
  )
  const pressing = computed<Pressing | undefined>(() => {
    if (setup.value.pressingMode === 'off' || pressingFault.value) return undefined
    if (setup.value.pressingMode === 'typical') return typicalPressing.value
    const { nutHeightMm, endHeightMm, material } = setup.value
    return { nutHeightMm, endHeightMm, material }
  })

  const bare = computed<StringBed>(() => ({
    lengthsMm: lengthsMm.value,
    boardLengthMm: board.value.lengthMm,
    pressing: pressing.value,
  }))
  /** Finds on a string that is no longer there say nothing. */
  const usedFinds = computed(() =>
    finds.value.flatMap((find) => {
      const stringIndex = tuning.value.findIndex((open) => noteName(open) === find.string)
      return stringIndex < 0 ? [] : [{ ...find, stringIndex }]
    }),
  )
  const fit = computed(() =>
    usedFinds.value.length === 0
      ? undefined
      : fitRings(
          usedFinds.value.map(({ stringIndex, cents, placeMm, isTrusted }) => ({
            lengthMm: lengthsMm.value[stringIndex] ?? lengthMm.value,
            cents,
            placeMm,
            isTrusted,
            pressShiftMm: pressShiftMm(bare.value, stringIndex, cents),
          })),
        ),
  )
  const bed = computed<StringBed>(() => ({ ...bare.value, fit: fit.value }))

  const system = computed(() => knownSystem(setup.value.systemId))
  const chosenMarks = computed<MarkSpec[]>(() => {
    if (setup.value.schoolId === BY_HAND) return marksWithIds(family.value, setup.value.markIds)
    const school = schoolOf(family.value, setup.value.schoolId)
    return school ? marksOfSchool(family.value, school) : []
  })
  const allMarks = computed(() => handMarks(family.value))
  const tape = computed<TapeShape>(() => ({
    widthMm: setup.value.tapeWidthMm,
    contact: setup.value.contact,
  }))
  const plan = computed(() =>
    planTapes({ tuning: tuning.value, system: system.value, marks: chosenMarks.value }),
  )
  const marks = computed(() => chartTapes(plan.value, bed.value, tape.value))
  /** Without what rings taught: what removing every find would restore. */
  const marksBeforeRings = computed(() =>
    fit.value ? chartTapes(plan.value, bare.value, tape.value) : marks.value,
  )
  /** Without pressing: how much it moves each tape is never kept silent. */
  const marksUnpressed = computed(() =>
    pressing.value ? chartTapes(plan.value, { ...bed.value, pressing: undefined }, tape.value) : marks.value,
  )

  const boardInstrument = computed<BoardInstrument>(() => ({ shape: board.value, tuning: tuning.value }))
  const boardTapes = computed<BoardTape[]>(() =>
    marks.value.map((mark) => ({ ...mark, label: shortMarkName(mark) })),
  )
  const boardTargets = computed<BoardTarget[]>(() => {
    // The string to lay by: the second from the bottom rings with its upper neighbours on every family.
    const stringIndex = Math.min(1, tuning.value.length - 1)
    const open = tuning.value[stringIndex]
    const shape = shapeOf(family.value, family.value.defaultShapeId)
    if (!open || !shape) return []
    return handTargets(lengthMm.value, open, shape, system.value).map(({ finger, cents, note: n }) => ({
      stringIndex,
      finger,
      placeMm: placeOnBed(bed.value, stringIndex, cents),
      note: noteName(n),
    }))
  })
  /** Height of the strings over the board where a tape lies; undefined where heights are not reckoned with. */
  const heightAt = (placeMm: number) =>
    pressing.value && stringHeightMm(pressing.value, board.value.lengthMm, placeMm)

  return {
    setup,
    instrument,
    family,
    tuning,
    typedTuning,
    lengths,
    isTypical,
    lengthsMm,
    lengthMm,
    bridge,
    board,
    typicalPressing,
    pressing,
    pressingFault,
    usedFinds,
    fit,
    bed,
    system,
    allMarks,
    chosenMarks,
    plan,
    marks,
    marksBeforeRings,
    marksUnpressed,
    boardInstrument,
    boardTapes,
    boardTargets,
    heightAt,
  }
}

export type Bench = ReturnType<typeof useBench>

export type ReadTuning =
  { readonly ok: true; readonly notes: readonly Note[] } | { readonly ok: false; readonly message: string }

/** Open strings as typed, lowest first; nothing typed is no fault. */
function readTuning(text: string): ReadTuning {
  const words = text.split(/[\s,;]+/).filter(Boolean)
  const notes: Note[] = []
  for (const word of words) {
    const parsed = parseNote(word)
    if (!parsed)
      return { ok: false, message: `“${word}” is no note: name each string with its octave, as in G3.` }
    notes.push(parsed)
  }
  if (notes.length === 0) return { ok: true, notes }
  const fault = tuningFault(notes)
  if (!fault) return { ok: true, notes }
  if (fault.code === 'strings_few_or_many')
    return { ok: false, message: `${fault.found} strings: name four to six, lowest first.` }
  const [lower, higher] = [notes[fault.stringIndex - 1]!, notes[fault.stringIndex]!].map((n) => noteName(n))
  return fault.code === 'strings_out_of_order'
    ? { ok: false, message: `${higher} is not above ${lower}: name the strings from the lowest up.` }
    : { ok: false, message: `${lower} and ${higher} are more than an octave apart: look at the octaves.` }
}
