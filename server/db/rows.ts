/** Rows as the database keeps them. Dates without a time are ISO strings; instants are `Date`s in UTC. */

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
  marks: { finger: number; shapeId: string; middleMm: number }[]
  laidOn: string
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
