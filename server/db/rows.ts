import type {
  Belief,
  BodyFitValues,
  Digit,
  Likely,
  RecordedLanding,
  SomeSchools,
  StringingSnapshot,
  TakeSummary,
} from '#core'
import type {
  Deed,
  Decision,
  ExerciseName,
  KeptFingering,
  HandMeasurement,
  Plan,
  KeptVerdict,
  Level,
  Role,
  SetupNow,
  SetupRound,
} from '#contracts'

/** Rows as the database keeps them. Dates without a time are ISO strings; instants are `Date`s in UTC; flags are read as 0 or 1. */

export interface StudioRow {
  id: string
  name: string
  system: string
  version: number
  /** As they were saved; null, and what is missing of them, is as usual. */
  settings: unknown
  createdAt: Date
}

export interface UserRow {
  id: string
  studioId: string
  email: string
  name: string
  /** Empty until one was chosen. */
  passwordHash: string
  role: Role
  leftAt: Date | null
}

export interface SecondFactorRow {
  id: string
  studioId: string
  userId: string
  /** The secret, sealed. */
  sealed: string
  confirmedAt: Date | null
  /** Of the last code that was taken, in periods since 1970: none is taken twice. */
  lastStep: number
  recordedAt: Date
}

export interface SpareCodeRow {
  id: string
  studioId: string
  userId: string
  hash: string
  usedAt: Date | null
}

export interface OneTimeKeyRow {
  id: string
  studioId: string
  userId: string
  hash: string
  madeBy: string
  madeAt: Date
  untilAt: Date
  usedAt: Date | null
}

export interface AuditRow {
  id: string
  studioId: string
  userId: string | null
  at: Date
  deed: Deed
  studentId: string | null
  subjectId: string | null
}

export interface ErasureRow {
  id: string
  studioId: string
  studentId: string
  erasedAt: Date
}

/** Something that was done to the whole database. */
export interface OperationRow {
  id: string
  kind: 'backup' | 'drill'
  at: Date
  isSound: boolean
  report: unknown
}

export interface SessionRow {
  /** Keyed hash of the cookie's token; the token itself is not stored. */
  id: string
  studioId: string
  userId: string
  /** Names the session to its owner, who may end it; opens nothing. */
  publicId: string
  device: 'computer' | 'tablet' | 'phone' | 'unknown'
  createdAt: Date
  seenAt: Date
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
  level: Level | null
  schools: SomeSchools | null
  /** Follows from the setup rounds, and is reckoned anew with each: a list need not read them all. */
  setupNow: SetupNow | null
  tapeSchoolId: string | null
  system: string | null
  lessonWeekday: number | null
  lessonTime: string | null
  soundConsent: { readonly on: string; readonly by: string } | null
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
  removedAt: Date | null
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
  fingerLengthsMm: HandMeasurement['fingerLengthsMm']
  fingertipWidthMm: number | null
  thumb: string | null
  recordedAt: Date
  removedAt: Date | null
}

export interface OwnFingeringRow {
  id: string
  studioId: string
  userId: string
  family: string
  /** Names the line; the same as `named` says in parts. */
  line: string
  named: KeptFingering['line']
  /** Null where the usual fingering holds again. */
  notes: KeptFingering['notes'] | null
  settled: KeptFingering['settled']
  recordedAt: Date
}

export interface PracticePlanRow {
  id: string
  studioId: string
  studentId: string
  userId: string
  startsOn: string
  family: string
  instrumentId: string | null
  minutesADay: number
  weekdays: Plan['weekdays']
  cards: Plan['cards']
  pieces: Plan['pieces']
  recordedAt: Date
  removedAt: Date | null
}

/** A row a word: the newest of a student, an exercise and a day counts. */
export interface PracticeEntryRow {
  id: string
  studioId: string
  studentId: string
  userId: string
  exerciseId: string
  practisedOn: string
  isDone: boolean
  minutes: number | null
  times: number | null
  recordedAt: Date
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

export interface SetupRoundRow {
  id: string
  studioId: string
  studentId: string
  userId: string
  takenAt: Date
  family: string
  answers: SetupRound['answers']
  passed: string[]
  stoppedAt: string | null
  /** What was told in it. */
  painId: string | null
  note: string
  recordedAt: Date
  removedAt: Date | null
}

export interface PainRow {
  id: string
  studioId: string
  studentId: string
  userId: string
  toldOn: string
  place: string
  since: string
  note: string
  clearedOn: string | null
  clearedNote: string
  recordedAt: Date
  removedAt: Date | null
}

export interface BodyFitRow {
  id: string
  studioId: string
  studentId: string
  userId: string
  family: string
  fittedOn: string
  measures: BodyFitValues
  note: string
  recordedAt: Date
  removedAt: Date | null
}

export interface GateMarkRow {
  id: string
  studioId: string
  studentId: string
  userId: string
  gate: string
  item: string
  state: string
  note: string
  recordedAt: Date
}

export interface CheckRow {
  id: string
  studioId: string
  studentId: string
  instrumentId: string
  userId: string
  takenAt: Date
  /** What was to be played; null for a row of an earlier version that could not be moved over. */
  exercise: KeptExercise | null
  /** The strings it was judged by; null as above. */
  stringing: StringingSnapshot | null
  toleranceCents: number
  tapesCovered: boolean
  /** The pitch of the take is kept beside it. */
  hasTrack: boolean
  /** Where tapes lay, mm from the nut; null of earlier versions. */
  tapesMm: readonly number[] | null
  verdict: KeptVerdict
  decision: Decision | null
  /** Follows from the landings, and is kept so that a history need not read them. */
  summary: TakeSummary | null
  /** What it makes likely of the hand, for later checks; null where it says nothing of it. */
  likely: Likely | null
  /** What earlier checks made believed before it was judged; null where none did. */
  belief: Belief | null
  /** A row of an earlier version as it was, and why it could not be moved over. */
  unmoved: { readonly reason: string; readonly row: unknown } | null
  note: string
  recordedAt: Date
  removedAt: Date | null
}

/** An exercise in names and numbers. */
export type KeptExercise = ExerciseName & {
  readonly notes: readonly {
    readonly stringIndex: number
    readonly finger: Digit
    readonly note: string
    readonly positionId: string | null
  }[]
}

export interface LandingRow extends RecordedLanding {
  readonly checkId: string
  readonly studioId: string
  /** In the order in which they were heard or read. */
  readonly position: number
}

/** The coded pitch of a take that was heard. */
export interface TakeTrackRow {
  checkId: string
  studioId: string
  bytes: Buffer
}

export interface AttachmentRow {
  id: string
  studioId: string
  userId: string
  /** What it lies beside: one of the three. */
  checkId: string | null
  studentId: string | null
  instrumentId: string | null
  mediaType: string
  byteCount: number
  sha256: string
  /** False while its bytes are still on their way. */
  isWhole: boolean
  recordedAt: Date
}

export interface AttachmentChunkRow {
  attachmentId: string
  studioId: string
  position: number
  bytes: Buffer
}

/** Sound that was taken away for good; without student and recording, all of the studio’s students. */
export interface SoundRemovalRow {
  id: string
  studioId: string
  studentId: string | null
  attachmentId: string | null
  removedAt: Date
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
