import { centsAboveOpen, knownSystem, noteName, notesOf, type Note, type TuningSystem } from '../pitch'
import {
  calibrateByRings,
  calibrationPrior,
  calibratedSigmaMm,
  centsAtPlace,
  centsPerMm,
  placeOfCents,
  pressedPlace,
  pressingCents,
  pressingOn,
  stringHeightMm,
  type CalibrationPrior,
  type LengthSource,
  type Pressing,
  type RingCalibration,
} from '../stop'
import { boardFor, type BoardMeasures } from './board'
import type { Family, FamilyId } from './family'
import { familyOf, typicalLengthMm } from './lookup'
import { pressingOf, type PressingChoice } from './pressing-choice'

/**
 * The strings of one instrument as they lie on it, and the system that notes follow on them: the one source of every
 * place. Strings are counted from the lowest; places are mm from the nut edge that faces the bridge.
 */
export interface Stringing {
  readonly family: Family
  /** Open strings, lowest first. */
  readonly tuning: readonly Note[]
  readonly system: TuningSystem
  /** Nut edge to bridge top, mm: one length for all strings, or one a string. */
  readonly lengthsMm: readonly number[]
  /** The mean of them. */
  readonly lengthMm: number
  /** Otherwise the length is what is typical of the size, from memory. */
  readonly isMeasured: boolean
  readonly board: BoardMeasures
  /** Missing where pressing is not reckoned with. */
  readonly pressing: Pressing | undefined
  /** What places found by ring have taught. */
  readonly calibration: RingCalibration | undefined
}

/** A place found by ring. */
export interface StringFind {
  readonly stringIndex: number
  /** Of the note that rang, above its open string. */
  readonly cents: number
  readonly placeMm: number
  /** The teacher has rung it again and stands by it. */
  readonly isTrusted: boolean
}

/** What is known of the strings of an instrument. */
export interface StringingFacts {
  readonly family: Family
  /** The size says what length is typical, where none was measured. */
  readonly sizeId: string
  readonly system: TuningSystem
  /** The family's own without it. */
  readonly tuning?: readonly Note[] | undefined
  /** One for all strings, or one a string; missing where nobody has measured. */
  readonly lengthsMm?: readonly number[] | undefined
  /** How they were measured; nut to bridge unless it says otherwise. */
  readonly lengthSource?: Exclude<LengthSource, 'typical'> | undefined
  readonly pressing?: PressingChoice | null | undefined
  readonly finds?: readonly StringFind[] | undefined
}

/**
 * The stringing that follows from what is known. Lengths of another number than the strings say nothing string by string:
 * of strings that were changed since, their mean is left.
 *
 * @example stringingOf({ family: familyOf('violin'), sizeId: '1/2', system: fifths, lengthsMm: [284.5] })
 */
export function stringingOf(facts: StringingFacts): Stringing {
  const { family, system, finds = [] } = facts
  const tuning = facts.tuning ?? family.tuning
  const isMeasured = facts.lengthsMm !== undefined && facts.lengthsMm.length > 0
  const known = isMeasured ? facts.lengthsMm : [typicalLengthMm(family, facts.sizeId)]
  const lengthMm = known.reduce((a, b) => a + b) / known.length
  const bare: Stringing = {
    family,
    tuning,
    system,
    lengthsMm: known.length === tuning.length ? known : [lengthMm],
    lengthMm,
    isMeasured,
    board: boardFor(family, lengthMm),
    pressing: pressingOf(family, lengthMm, facts.pressing),
    calibration: undefined,
  }
  if (finds.length === 0) return bare
  const prior = calibrationPrior(isMeasured ? (facts.lengthSource ?? 'bridge') : 'typical', lengthMm)
  return { ...bare, calibration: calibrationOf(bare, finds, prior) }
}

function calibrationOf(
  bare: Stringing,
  finds: readonly StringFind[],
  prior: CalibrationPrior,
): RingCalibration {
  return calibrateByRings(
    finds.map(({ stringIndex, cents, placeMm, isTrusted }) => ({
      lengthMm: stringLengthMm(bare, stringIndex),
      cents,
      placeMm,
      isTrusted,
      pressShiftMm: pressShiftMm(bare, stringIndex, cents),
    })),
    prior,
  )
}

/** The stringing of a size as it typically is, in the family's own tuning. From memory. */
export function typicalStringing(family: Family, sizeId: string, system: TuningSystem): Stringing {
  return stringingOf({ family, sizeId, system })
}

/** An instrument as a studio keeps it: names and numbers. */
export interface InstrumentRecord {
  readonly family: FamilyId
  readonly sizeId: string
  /** Names of the open strings, lowest first. */
  readonly tuning: readonly string[]
  readonly measurement: {
    readonly lengthMm: number
    readonly stringLengthsMm: readonly number[] | null
    readonly method?: string
  } | null
  readonly pressing: PressingChoice | null
  /** Those that still hold: found since the bridge was changed. */
  readonly ringFinds: readonly NamedFind[]
}

/** A place found by ring on a string of this name. */
export interface NamedFind extends Omit<StringFind, 'stringIndex'> {
  readonly string: string
}

/** The stringing of an instrument that is kept, in the system with this id; throws on an id that cannot be read. */
export function stringingOfInstrument(instrument: InstrumentRecord, systemId: string): Stringing {
  const { measurement } = instrument
  const tuning = notesOf(instrument.tuning)
  return stringingOf({
    family: familyOf(instrument.family),
    sizeId: instrument.sizeId,
    system: knownSystem(systemId),
    tuning,
    lengthsMm: measurement ? (measurement.stringLengthsMm ?? [measurement.lengthMm]) : undefined,
    lengthSource: measurement ? sourceOf(measurement) : undefined,
    pressing: instrument.pressing,
    finds: findsOn(tuning, instrument.ringFinds).map(({ find, stringIndex }) => ({ ...find, stringIndex })),
  })
}

/** How a kept length was measured. */
export function sourceOf({
  method,
  stringLengthsMm,
}: NonNullable<InstrumentRecord['measurement']>): Exclude<LengthSource, 'typical'> {
  if (stringLengthsMm) return 'strings'
  return method === 'harmonic' ? 'harmonic' : 'bridge'
}

/** Finds with the strings they are on; those on a string that is no longer there say nothing and are left out. */
export function findsOn<F extends { readonly string: string }>(
  tuning: readonly Note[],
  finds: readonly F[],
): { readonly find: F; readonly stringIndex: number }[] {
  const names = tuning.map((open) => noteName(open))
  return finds.flatMap((find) => {
    const stringIndex = names.indexOf(find.string)
    return stringIndex < 0 ? [] : [{ find, stringIndex }]
  })
}

/** Measured length of a string, mm. */
export function stringLengthMm({ lengthsMm }: Stringing, stringIndex: number): number {
  const length = lengthsMm.length === 1 ? lengthsMm[0] : lengthsMm[stringIndex]
  if (length === undefined) throw new RangeError(`there is no string ${stringIndex}`)
  return length
}

/**
 * Where string `stringIndex` sounds `cents` above its open pitch. Where pressing leaves no such place (see
 * {@link hasPlace}), that of a string that is not pressed: something to aim at, and too sharp.
 */
export function placeOnString(stringing: Stringing, stringIndex: number, cents: number): number {
  const { calibration, pressing, board } = stringing
  const length = stringLengthMm(stringing, stringIndex) + (calibration?.lengthCorrectionMm ?? 0)
  const pressed = pressing && pressedPlace(length, board.lengthMm, cents, pressingOn(pressing, stringIndex))
  return (pressed ?? placeOfCents(length, cents)) + (calibration?.nutOffsetMm ?? 0)
}

/** Whether the string, pressed down anywhere, sounds `cents` above its open pitch; close to a high nut it is always sharper. */
export function hasPlace(stringing: Stringing, stringIndex: number, cents: number): boolean {
  const { calibration, pressing, board } = stringing
  if (!pressing) return true
  const length = stringLengthMm(stringing, stringIndex) + (calibration?.lengthCorrectionMm ?? 0)
  return pressedPlace(length, board.lengthMm, cents, pressingOn(pressing, stringIndex)) !== undefined
}

/** Those of these notes that have no place on their string; see {@link hasPlace}. */
export function notesWithoutPlace<N extends { readonly stringIndex: number; readonly note: Note }>(
  stringing: Stringing,
  notes: readonly N[],
): N[] {
  if (!stringing.pressing) return []
  return notes.filter(
    ({ stringIndex, note }) => !hasPlace(stringing, stringIndex, centsOfNote(stringing, stringIndex, note)),
  )
}

/** Where a note is stopped on string `stringIndex`; 0 for the open string. */
export function placeOfNote(stringing: Stringing, stringIndex: number, stopped: Note): number {
  return placeOnString(stringing, stringIndex, centsOfNote(stringing, stringIndex, stopped))
}

/** How many cents a note lies above the open string `stringIndex`, in the stringing's system. */
export function centsOfNote({ tuning, system }: Stringing, stringIndex: number, stopped: Note): number {
  const open = tuning[stringIndex]
  if (!open) throw new RangeError(`there is no string ${stringIndex}`)
  return centsAboveOpen(system, open, stopped)
}

/** What string `stringIndex` sounds when stopped at `placeMm`, in cents above its open pitch. */
export function centsOnString(stringing: Stringing, stringIndex: number, placeMm: number): number {
  const { calibration, pressing, board } = stringing
  const length = stringLengthMm(stringing, stringIndex) + (calibration?.lengthCorrectionMm ?? 0)
  const place = placeMm - (calibration?.nutOffsetMm ?? 0)
  const pressed = pressing
    ? pressingCents(length, board.lengthMm, place, pressingOn(pressing, stringIndex))
    : 0
  return centsAtPlace(length, place) + pressed
}

/** Half the step of the numerical derivative, mm. */
const SLOPE_STEP_MM = 0.01

/** How many cents one millimetre is worth at `placeMm` on string `stringIndex`. */
export function centsPerMmOnString(stringing: Stringing, stringIndex: number, placeMm: number): number {
  const { calibration, pressing } = stringing
  if (!pressing) {
    const length = stringLengthMm(stringing, stringIndex) + (calibration?.lengthCorrectionMm ?? 0)
    return centsPerMm(length, placeMm - (calibration?.nutOffsetMm ?? 0))
  }
  const [below, above] = [-SLOPE_STEP_MM, SLOPE_STEP_MM].map((by) =>
    centsOnString(stringing, stringIndex, placeMm + by),
  ) as [number, number]
  return (above - below) / (2 * SLOPE_STEP_MM)
}

/** By how much pressing moves a place, mm; negative is towards the nut. */
export function pressShiftMm(stringing: Stringing, stringIndex: number, cents: number): number {
  const { pressing, board } = stringing
  if (!pressing) return 0
  const length = stringLengthMm(stringing, stringIndex)
  const ideal = placeOfCents(length, cents)
  return (pressedPlace(length, board.lengthMm, cents, pressingOn(pressing, stringIndex)) ?? ideal) - ideal
}

/** Standard deviation, mm, of the place of a note `cents` above the open string; undefined where nothing was found by ring. */
export function placeSigmaMm({ calibration }: Stringing, cents: number): number | undefined {
  return calibration && calibratedSigmaMm(calibration, cents)
}

/** Height of the strings over the board at a place; undefined where heights are not reckoned with. */
export function heightOverBoardMm({ pressing, board }: Stringing, placeMm: number): number | undefined {
  return pressing && stringHeightMm(pressing, board.lengthMm, placeMm)
}

/** Whether every string has the same place for the same interval. */
export function isEven({ lengthsMm, pressing }: Stringing): boolean {
  if (lengthsMm.length === 1 && pressing === undefined) return true
  const materials = pressing?.materials ?? []
  return (
    lengthsMm.every((length) => length === lengthsMm[0]) &&
    materials.every((material) => material === materials[0])
  )
}
