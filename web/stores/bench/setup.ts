import {
  DEFAULT_SYSTEM_ID,
  DEFAULT_TAPE_WIDTH_MM,
  familyOf,
  marksOfSchool,
  marksWithIds,
  schoolOf,
  type FamilyId,
  type StringMaterial,
  type TapeContact,
} from '#core'
import type { Instrument, PressingChoice, Student } from '#contracts'

export type LengthMethod = 'bridge' | 'harmonic' | 'strings'

/** Everything a teacher sets on the bench, as typed; what follows from it is computed. Plain data: it survives a reload. */
export interface BenchSetup {
  /** The instrument this was set for; empty on a bare bench. */
  instrumentId: string
  familyId: FamilyId
  sizeId: string
  method: LengthMethod
  lengthText: string
  stringTexts: string[]
  /** Open strings in note names; empty for the instrument's or the family's own. */
  tuningText: string
  systemId: string
  schoolId: string
  /** Marks chosen by hand; used where the school is `by_hand`. */
  markIds: string[]
  tapeWidthMm: number
  tapeThicknessMm: number
  contact: TapeContact
  pressingMode: PressingChoice['mode']
  nutHeightMm: number
  endHeightMm: number
  material: StringMaterial
  /** One a string, lowest first; empty where all are of `material`. */
  materials: StringMaterial[]
  /** Round neck and board at the first tape, mm; empty for the typical one. */
  girthText: string
}

/** School of those who choose each mark themselves. */
export const BY_HAND = 'by_hand'
/** A vinyl tape, mm. Common practice, no source. */
const DEFAULT_THICKNESS_MM = 0.13

/** An empty bench; with the row of tapes that is usual where it stands, else the family’s. */
export function bareSetup(
  familyId: FamilyId,
  systemId: string = DEFAULT_SYSTEM_ID,
  usualSchoolId?: string,
): BenchSetup {
  const family = familyOf(familyId)
  return {
    instrumentId: '',
    familyId,
    sizeId: family.sizes[0]?.id ?? '',
    method: 'bridge',
    lengthText: '',
    stringTexts: family.tuning.map(() => ''),
    tuningText: '',
    systemId,
    schoolId: usualSchoolId ?? family.defaultSchoolId,
    markIds: [],
    tapeWidthMm: DEFAULT_TAPE_WIDTH_MM,
    tapeThicknessMm: DEFAULT_THICKNESS_MM,
    contact: 'centre',
    pressingMode: 'off',
    ...family.typicalPressing,
    materials: [],
    girthText: '',
  }
}

/** What is known of an instrument, and of its player's school, laid out on the bench in the system that governs it. */
export function setupFor(
  instrument: Instrument,
  student: Student | undefined,
  systemId: string,
  usualSchoolId?: string,
): BenchSetup {
  const bare = bareSetup(instrument.family, systemId)
  const { measurement, tapeSet, pressing, tuning } = instrument
  const each = measurement?.stringLengthsMm
  const isEach = each?.length === tuning.length
  return {
    ...bare,
    instrumentId: instrument.id,
    sizeId: instrument.sizeId,
    method: isEach ? 'strings' : 'bridge',
    lengthText: measurement ? shortMm(measurement.lengthMm) : '',
    stringTexts: isEach ? each.map(shortMm) : tuning.map(() => ''),
    ...ownTapes(instrument, student, usualSchoolId),
    tapeWidthMm: tapeSet?.tapeWidthMm ?? bare.tapeWidthMm,
    ...(pressing
      ? {
          pressingMode: pressing.mode,
          nutHeightMm: pressing.nutHeightMm,
          endHeightMm: pressing.endHeightMm,
          material: pressing.material,
          materials: [...(pressing.materials ?? [])],
        }
      : {}),
  }
}

/**
 * The tapes that a bench opens with: those that lie on the instrument, unless its player's school has others; where none
 * lie, the player's school, else the one that was laid last.
 */
function ownTapes(
  { family: familyId, tapes, tapeSet }: Instrument,
  student: Student | undefined,
  usualSchoolId: string | undefined,
): Pick<BenchSetup, 'schoolId' | 'markIds'> {
  const family = familyOf(familyId)
  const marksOf = (id: string) => {
    const school = schoolOf(family, id)
    return school ? marksOfSchool(family, school).map((mark) => mark.id) : []
  }
  const markIds = tapes.map((tape) => tape.markId)
  const own = student?.family === familyId ? student.tapeSchoolId : null
  const schoolId = own ?? tapeSet?.schoolId ?? usualSchoolId ?? family.defaultSchoolId
  const isOwn = markIds.length > 0 && (own === null || markIds.every((id) => marksOf(own).includes(id)))
  if (!isOwn) return { schoolId, markIds }
  const same = [schoolId, ...family.schools.map(({ id }) => id)].find(
    (id) =>
      marksOf(id).join() ===
      marksWithIds(family, markIds)
        .map((mark) => mark.id)
        .join(),
  )
  return { schoolId: same ?? BY_HAND, markIds }
}

function shortMm(mm: number): string {
  return String(Number(mm.toFixed(1)))
}
