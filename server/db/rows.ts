/** Rows as the database keeps them. Dates without a time are ISO strings; instants are `Date`s in UTC; flags are read as 0 or 1. */

export interface StudioRow {
  id: string
  name: string
  system: string
  createdAt: Date
}

export interface UserRow {
  id: string
  studioId: string
  email: string
  name: string
  passwordHash: string
}

export interface SessionRow {
  /** Keyed hash of the cookie's token; the token itself is not stored. */
  id: string
  studioId: string
  userId: string
  createdAt: Date
  expiresAt: Date
}

export interface StudentRow {
  id: string
  studioId: string
  version: number
  name: string
  birthYear: number | null
  family: string
  toleranceCents: number
  tapeSchoolId: string | null
  lessonWeekday: number | null
  lessonTime: string | null
  note: string
  createdAt: Date
  removedAt: Date | null
}

export interface InstrumentRow {
  id: string
  studioId: string
  version: number
  label: string
  family: string
  sizeId: string
  tuning: string[]
  pressing: unknown
  warmHands: boolean
  createdAt: Date
}

export interface LoanRow {
  id: string
  studioId: string
  studentId: string
  instrumentId: string
  fromDate: string
  toDate: string | null
}

export interface MeasurementRow {
  id: string
  studioId: string
  instrumentId: string
  userId: string
  lengthMm: number
  typed: string
  method: string
  stringLengthsMm: number[] | null
  measuredOn: string
  recordedAt: Date
}

export interface TapeSetRow {
  id: string
  studioId: string
  instrumentId: string
  userId: string
  schoolId: string
  system: string
  lengthMm: number
  tapeWidthMm: number
  /** As laid; the log of tape events says what became of them. */
  marks: { markId: string; placeMm: number }[]
  laidOn: string
  recordedAt: Date
}

export interface TapeEventRow {
  id: string
  studioId: string
  instrumentId: string
  userId: string
  kind: string
  markId: string | null
  placeMm: number | null
  onDate: string
  reason: string
  recordedAt: Date
  removedAt: Date | null
}

export interface RingFindRow {
  id: string
  studioId: string
  instrumentId: string
  userId: string
  string: string
  note: string
  system: string
  /** Of the note above its open string, in the system it was found in. */
  cents: number
  placeMm: number
  isTrusted: boolean
  foundOn: string
  recordedAt: Date
  removedAt: Date | null
}

export interface HandMeasurementRow {
  id: string
  studioId: string
  studentId: string
  userId: string
  measuredOn: string
  comfortableSpanMm: number
  reachedSpanMm: number | null
  fingerLengthsMm: Record<1 | 2 | 3 | 4, number> | null
  fingertipWidthMm: number | null
  thumb: string | null
  recordedAt: Date
  removedAt: Date | null
}

export interface MasteryMarkRow {
  id: string
  studioId: string
  studentId: string
  userId: string
  kind: string
  item: string
  state: string
  recordedAt: Date
}

export interface CheckRow {
  id: string
  studioId: string
  studentId: string
  instrumentId: string
  userId: string
  takenAt: Date
  string: string
  shapeId: string
  system: string
  lengthMm: number
  toleranceCents: number
  outcome: string
  /** What the outcome has to say beside its findings. */
  detail: unknown
  note: string
  recordedAt: Date
  removedAt: Date | null
}

export interface ReadingRow {
  id: string
  studioId: string
  checkId: string
  position: number
  finger: number
  shownCents: number
}

export interface FindingRow {
  id: string
  studioId: string
  checkId: string
  position: number
  isAlternative: boolean
  code: string
  data: unknown
}

export interface IdempotencyKeyRow {
  studioId: string
  idempotencyKey: string
  requestHash: string
  answer: unknown
  createdAt: Date
}

export interface RateLimitRow {
  id: string
  hits: number
  resetAt: Date
}
