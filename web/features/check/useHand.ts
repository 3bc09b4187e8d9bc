import { computed, ref, watch, type Ref } from 'vue'
import {
  boardFor,
  checkFromMeter,
  familyOf,
  judgeHand,
  note,
  noteName,
  parseNote,
  placeOfCents,
  shapeOf,
  tuningSystem,
  handTargets,
  DEFAULT_SYSTEM_ID,
  DEFAULT_TAPE_WIDTH_MM,
  marksWithIds,
  type TuningSystem,
  type Verdict,
} from '#core'
import type { Instrument, Reading, Student } from '#contracts'
import type { BoardInstrument, BoardLanding, BoardTape, BoardTarget } from '../../board/board'
import { markName } from '../../words/trade'

/** The open strings of an instrument as notes, lowest first. */
export function tuningOf(instrument: Pick<Instrument, 'tuning'>) {
  return instrument.tuning.flatMap((text) => parseNote(text) ?? [])
}

/** A stored system; one that cannot be read is a fault to be told, never quietly another. */
export function knownSystem(systemId: string): TuningSystem {
  const system = tuningSystem(systemId)
  if (!system) throw new Error(`The tuning system “${systemId}” cannot be read. Choose another one.`)
  return system
}

/** Which hand is read: the string, the shape, the tuning system, and with them the places of the fingers. */
export function useHand(student: Ref<Student | undefined>) {
  const instrument = computed(() => student.value?.instrument ?? undefined)
  const family = computed(() => familyOf(instrument.value?.family ?? student.value?.family ?? 'violin'))
  const lengthMm = computed(() => instrument.value?.measurement?.lengthMm)
  const tuning = computed(() => (instrument.value ? tuningOf(instrument.value) : family.value.tuning))

  const stringIndex = ref(0)
  const shapeId = ref('')
  const systemId = ref(DEFAULT_SYSTEM_ID)
  watch(
    () => student.value?.id,
    () => {
      const last = student.value?.lastCheck
      const names = tuning.value.map((n) => noteName(n))
      const lastIndex = last ? names.indexOf(last.string) : -1
      // The second string from the top is where hands are shaped first.
      stringIndex.value = lastIndex >= 0 ? lastIndex : Math.max(0, names.length - 2)
      shapeId.value = last && shapeOf(family.value, last.shapeId) ? last.shapeId : family.value.defaultShapeId
    },
    { immediate: true },
  )

  const open = computed(() => tuning.value[stringIndex.value] ?? note('A4'))
  const shape = computed(() => shapeOf(family.value, shapeId.value) ?? family.value.shapes[0]!)
  const system = computed(() => knownSystem(systemId.value))
  const toleranceCents = computed(() => student.value?.toleranceCents ?? 20)

  const targets = computed(() =>
    lengthMm.value === undefined ? [] : handTargets(lengthMm.value, open.value, shape.value, system.value),
  )
  return {
    instrument,
    family,
    lengthMm,
    tuning,
    stringIndex,
    shapeId,
    systemId,
    open,
    shape,
    system,
    toleranceCents,
    targets,
  }
}

export type Hand = ReturnType<typeof useHand>

/** What the readings say of a hand; undefined until the string is measured. */
export function useVerdict(hand: Hand, readings: Ref<readonly Reading[]>) {
  return computed<Verdict | undefined>(() =>
    hand.lengthMm.value === undefined
      ? undefined
      : judgeHand(
          checkFromMeter({
            lengthMm: hand.lengthMm.value,
            open: hand.open.value,
            shape: hand.shape.value,
            system: hand.system.value,
            shown: readings.value,
            toleranceCents: hand.toleranceCents.value,
          }),
        ),
  )
}

/** The board's layers for a hand being read. */
export function useHandOnBoard(
  hand: Hand,
  verdict: Ref<Verdict | undefined>,
  readings: Ref<readonly Reading[]>,
) {
  const boardInstrument = computed<BoardInstrument | undefined>(() =>
    hand.lengthMm.value === undefined
      ? undefined
      : { shape: boardFor(hand.family.value, hand.lengthMm.value), tuning: hand.tuning.value },
  )
  const boardTargets = computed<BoardTarget[]>(() =>
    hand.targets.value.map(({ finger, placeMm, note: n }) => ({
      stringIndex: hand.stringIndex.value,
      finger,
      placeMm,
      note: noteName(n),
    })),
  )
  const tapes = computed<BoardTape[]>(() => tapesOnBoard(hand.instrument.value))
  const landings = computed<BoardLanding[]>(() => {
    const length = hand.lengthMm.value
    if (length === undefined) return []
    return (verdict.value?.fingers ?? []).map(({ finger, target, meanCents, meanMm }) => {
      const placeAt = (cents: number) => placeOfCents(length, target.cents + cents)
      const notes = readings.value
        .filter((r) => r.finger === finger)
        .map((r) => r.shownCents - target.meterCents)
      const tolerance = hand.toleranceCents.value
      return {
        stringIndex: hand.stringIndex.value,
        finger,
        targetMm: target.placeMm,
        meanMm: target.placeMm + meanMm,
        meanCents,
        notesMm: notes.map(placeAt),
        toleranceMm: [placeAt(-tolerance), placeAt(tolerance)] as const,
        isOff: Math.abs(meanCents) > tolerance,
      }
    })
  })
  return { boardInstrument, boardTargets, tapes, landings }
}

/** The tapes that lie on an instrument now, where they were seen last. */
export function tapesOnBoard(instrument: Instrument | undefined): BoardTape[] {
  if (!instrument) return []
  const half = (instrument.tapeSet?.tapeWidthMm ?? DEFAULT_TAPE_WIDTH_MM) / 2
  const marks = marksWithIds(
    familyOf(instrument.family),
    instrument.tapes.map((tape) => tape.markId),
  )
  return instrument.tapes.flatMap(({ markId, placeMm }) => {
    const mark = marks.find((m) => m.id === markId)
    if (!mark) return []
    return [
      {
        id: markId,
        label: markName(mark),
        nearEdgeMm: placeMm - half,
        middleMm: placeMm,
        farEdgeMm: placeMm + half,
      },
    ]
  })
}
