import { z } from 'zod'
import { AuditPage, AuditQuery } from './audit'
import { Attachment, ATTACHMENT_LIMIT_BYTES, ATTACHMENT_TYPES, RecordKind, StoredSound } from './attachments'
import { Check, CheckDraft, CheckSummary, ChecksQuery, History, TakeTrack } from './checks'
import { Id } from './common'
import { DecisionDraft, WorkChange, VerdictCounts } from './verdicts'
import { KeptFingering, FingeringDraft, FingeringsQuery } from './fingerings'
import { HandMeasurement, HandMeasurementDraft } from './hands'
import {
  CupboardQuery,
  Imported,
  ImportUndo,
  Instrument,
  InstrumentChange,
  InstrumentDraft,
  InstrumentImport,
  Measurement,
  MeasurementDraft,
} from './instruments'
import { pageOf } from './lists'
import { Mastery, MasteryMarks } from './mastery'
import {
  ClassQuery,
  ClassRow,
  MendCount,
  MendsQuery,
  Plan,
  PlanDraft,
  PracticeDraft,
  PracticeEntry,
} from './plans'
import { ServerState } from './operations'
import {
  Invited,
  KeyUse,
  OneTimeKey,
  Person,
  PersonChange,
  PersonDraft,
  SecondFactor,
  SecondFactorBegin,
  SecondFactorCode,
  SecondFactorKey,
  SpareCodes,
} from './people'
import type { ProblemCode } from './problems'
import type { RouteName } from './routes'
import { Credentials, Door, OpenSession, PasswordChange, Session } from './session'
import {
  RingFind,
  RingFindChange,
  RingFindDraft,
  TapeEvent,
  TapeEventDraft,
  TapeSet,
  TapeSetDraft,
} from './tapes'
import { Studio, StudioChange } from './settings'
import {
  BodyFit,
  BodyFitDraft,
  GateMark,
  GateMarkDraft,
  Pain,
  PainClearing,
  PainDraft,
  SetupRound,
  SetupRoundDraft,
} from './setup'
import {
  LessonsQuery,
  LoanDraft,
  NextLessons,
  RosterQuery,
  Student,
  StudentChange,
  StudentDraft,
} from './students'

/** What one route takes and gives. */
export interface Endpoint {
  readonly summary: string
  /** Open to people who have not signed in. */
  readonly isPublic?: boolean
  /** Only an owner of the studio may, or whoever runs the server. */
  readonly needs?: 'owner' | 'operator'
  /** A new thing comes of it: it needs an Idempotency-Key, and twice the same makes one. */
  readonly creates?: boolean
  readonly params?: z.ZodObject
  readonly query?: z.ZodObject
  readonly body?: z.ZodType
  /** Takes the bytes of a file in place of a body: of these media types, up to this many. */
  readonly upload?: { readonly types: readonly string[]; readonly limitBytes: number }
  /** Answers with the bytes of a file of one of these media types. */
  readonly download?: { readonly types: readonly string[] }
  readonly response: z.ZodType
  readonly problems?: readonly ProblemCode[]
}

const studentParams = z.object({ studentId: Id })
const instrumentParams = z.object({ instrumentId: Id })
const eventParams = z.object({ eventId: Id })
const findParams = z.object({ findId: Id })
const handParams = z.object({ handId: Id })
const checkParams = z.object({ checkId: Id })
const attachmentParams = z.object({ attachmentId: Id })
const recordParams = z.object({ record: RecordKind, recordId: Id })
const roundParams = z.object({ roundId: Id })
const painParams = z.object({ painId: Id })
const planParams = z.object({ planId: Id })
const fitParams = z.object({ fitId: Id })
const userParams = z.object({ userId: Id })
const Done = z.null()

export const Health = z
  .object({ status: z.enum(['ok', 'unavailable']), version: z.string(), database: z.enum(['ok', 'away']) })
  .meta({ id: 'Health' })

export const Room = z
  .object({
    /** The nearest first; none where the server listens to its own machine alone. */
    addresses: z.array(z.string()),
    /** A tablet must install an authority first: it lies at `/authority.crt`. */
    hasAuthority: z.boolean(),
  })
  .meta({ id: 'Room' })

export const ENDPOINTS = {
  'health.read': {
    summary: 'Whether the server and its database answer; 503 when the database is away',
    isPublic: true,
    response: Health,
  },
  'live.read': {
    summary: 'Whether this server answers at all; nothing is asked of the database',
    isPublic: true,
    response: z.object({ status: z.literal('ok') }),
  },
  'openapi.read': { summary: 'This description', isPublic: true, response: z.looseObject({}) },
  'door.read': {
    summary: 'Whether somebody is signed in, without insisting',
    isPublic: true,
    response: Door,
  },
  'session.open': {
    summary: 'Sign in',
    isPublic: true,
    body: Credentials,
    response: Session,
    problems: ['wrong_credentials', 'code_needed', 'wrong_code', 'too_many_attempts'],
  },
  'session.read': { summary: 'Who is signed in', response: Session },
  'session.close': { summary: 'Sign out', response: Done },
  'room.read': {
    summary: 'Where a tablet on the same network finds this server',
    response: Room,
  },
  'students.list': {
    summary: 'The roster page by page, each student with instrument and last check',
    query: RosterQuery,
    response: pageOf(Student),
  },
  'students.lessons': {
    summary: 'The day of the week with the next lessons, counted from one, and who has one then, by time',
    query: LessonsQuery,
    response: NextLessons,
  },
  'students.create': {
    summary: 'Enrol a student, with the instrument that is brought along',
    creates: true,
    body: StudentDraft,
    response: Student,
    problems: ['length_doubtful', 'length_impossible'],
  },
  'students.read': { summary: 'A student’s file', params: studentParams, response: Student },
  'students.update': {
    summary: 'Change a student’s file',
    params: studentParams,
    body: StudentChange,
    response: Student,
    problems: ['changed_meanwhile'],
  },
  'students.remove': { summary: 'Take a student off the roster', params: studentParams, response: Done },
  'students.restore': { summary: 'Undo taking a student off', params: studentParams, response: Student },
  'students.lend': {
    summary: 'Lend the student an instrument, or take it back',
    creates: true,
    params: studentParams,
    body: LoanDraft,
    response: Student,
  },
  'checks.list': {
    summary: 'A student’s checks page by page, newest first',
    params: studentParams,
    query: ChecksQuery,
    response: z.array(Check),
  },
  'checks.latest': {
    summary: 'The latest check of each exercise of a student, newest first, without its notes',
    params: studentParams,
    response: z.array(CheckSummary),
  },
  'checks.history': {
    summary: 'All checks of a student in a few numbers each, oldest first, with instruments and tapes beside',
    params: studentParams,
    response: History,
  },
  'checks.counts': {
    summary: 'How often each kind of verdict was told, accepted and overruled in the last year',
    response: VerdictCounts,
  },
  'checks.read': { summary: 'A check', params: checkParams, response: Check },
  'checks.decide': {
    summary: 'Accept, overrule or reword a verdict, and say what is worked on',
    params: checkParams,
    body: DecisionDraft,
    response: Check,
  },
  'checks.mend': {
    summary: 'Say that what was agreed at a check is mended, or that it is worked on again',
    params: checkParams,
    body: WorkChange,
    response: Check,
  },
  'checks.undecide': {
    summary: 'Take back what was said to a verdict',
    params: checkParams,
    response: Check,
  },
  'checks.create': {
    summary: 'Keep a check; the server judges it again',
    creates: true,
    params: studentParams,
    body: CheckDraft,
    response: Check,
    problems: ['instrument_not_measured'],
  },
  'checks.track': {
    summary: 'The pitch of a take that was heard, moment by moment',
    params: checkParams,
    response: TakeTrack,
  },
  'checks.remove': { summary: 'Take a check out of the file', params: checkParams, response: Done },
  'checks.restore': { summary: 'Undo taking a check out', params: checkParams, response: Check },
  'hands.list': {
    summary: 'A student’s hand as measured over time, newest first',
    params: studentParams,
    response: z.array(HandMeasurement),
  },
  'hands.create': {
    summary: 'Keep measures of a student’s hand',
    creates: true,
    params: studentParams,
    body: HandMeasurementDraft,
    response: HandMeasurement,
  },
  'hands.remove': { summary: 'Take measures of a hand out of the file', params: handParams, response: Done },
  'hands.restore': {
    summary: 'Undo taking measures of a hand out',
    params: handParams,
    response: HandMeasurement,
  },
  'setup.list': {
    summary: 'A student’s setup rounds, newest first',
    params: studentParams,
    response: z.array(SetupRound),
  },
  'setup.create': {
    summary: 'Keep a setup round; pain that was told is marked in the file',
    creates: true,
    params: studentParams,
    body: SetupRoundDraft,
    response: SetupRound,
  },
  'setup.remove': {
    summary: 'Take a setup round out of the file, and the pain told in it',
    params: roundParams,
    response: Done,
  },
  'setup.restore': { summary: 'Undo taking a setup round out', params: roundParams, response: SetupRound },
  'pains.list': {
    summary: 'Pain that was told, newest first',
    params: studentParams,
    response: z.array(Pain),
  },
  'pains.create': {
    summary: 'Mark pain in a student’s file',
    creates: true,
    params: studentParams,
    body: PainDraft,
    response: Pain,
  },
  'pains.clear': {
    summary: 'Say that playing is all right again',
    creates: true,
    params: painParams,
    body: PainClearing,
    response: Pain,
  },
  'pains.reopen': { summary: 'Undo clearing a pain', params: painParams, response: Pain },
  'pains.remove': {
    summary: 'Take a pain back that was marked by mistake',
    params: painParams,
    response: Done,
  },
  'pains.restore': { summary: 'Undo taking a pain back', params: painParams, response: Pain },
  'bodyFits.list': {
    summary: 'How instruments were fitted to a student, newest first',
    params: studentParams,
    response: z.array(BodyFit),
  },
  'bodyFits.create': {
    summary: 'Keep how an instrument fits a student’s body',
    creates: true,
    params: studentParams,
    body: BodyFitDraft,
    response: BodyFit,
  },
  'bodyFits.remove': { summary: 'Take a fit out of the file', params: fitParams, response: Done },
  'bodyFits.restore': { summary: 'Undo taking a fit out', params: fitParams, response: BodyFit },
  'gates.list': {
    summary: 'What teachers said of a student’s gates last',
    params: studentParams,
    response: z.array(GateMark),
  },
  'gates.mark': {
    summary: 'Say something of a gate, or overrule it',
    creates: true,
    params: studentParams,
    body: GateMarkDraft,
    response: z.array(GateMark),
  },
  'studio.read': { summary: 'The studio and how it teaches', response: Studio },
  'studio.update': {
    summary: 'Change how the studio teaches',
    body: StudioChange,
    response: Studio,
    problems: ['changed_meanwhile'],
  },
  'mastery.list': {
    summary: 'Which patterns and positions a student is learning or has secure',
    params: studentParams,
    response: z.array(Mastery),
  },
  'mastery.mark': {
    summary: 'Say how well a student has patterns and positions',
    creates: true,
    params: studentParams,
    body: MasteryMarks,
    response: z.array(Mastery),
  },
  'plans.list': {
    summary: 'A student’s plans, the newest week first; of a week the one that was given last',
    params: studentParams,
    response: z.array(Plan),
  },
  'plans.give': {
    summary: 'Give a student the plan of a week, in the place of the one that it names',
    creates: true,
    params: studentParams,
    body: PlanDraft,
    response: Plan,
    problems: ['changed_meanwhile', 'taken_meanwhile'],
  },
  'plans.remove': { summary: 'Take a plan out of the file', params: planParams, response: Done },
  'plans.restore': { summary: 'Undo taking a plan out', params: planParams, response: Plan },
  'practice.list': {
    summary: 'What a student has practised, by day; of an exercise and a day what was said last',
    params: studentParams,
    response: z.array(PracticeEntry),
  },
  'practice.say': {
    summary: 'Say what was practised, or take it back',
    creates: true,
    params: studentParams,
    body: PracticeDraft,
    response: z.array(PracticeEntry),
  },
  'practice.class': {
    summary:
      'Who has a plan that began on these days, by name: the plan given last, and what was done since it began',
    query: ClassQuery,
    response: pageOf(ClassRow),
  },
  'practice.mends': {
    summary:
      'How often each exercise was followed by its mend in half a year, of a page of the students who had a plan; how many they are',
    query: MendsQuery,
    response: z.object({ total: z.int(), counts: z.array(MendCount) }),
  },
  'fingerings.list': {
    summary: 'The studio’s own fingerings of scales and arpeggios',
    query: FingeringsQuery,
    response: z.array(KeptFingering),
  },
  'fingerings.keep': {
    summary: 'Keep a fingering as the studio’s own, or without notes the usual one again',
    creates: true,
    body: FingeringDraft,
    response: z.array(KeptFingering),
  },
  'instruments.list': {
    summary: 'The cupboard page by page, each instrument with length, tapes and holder',
    query: CupboardQuery,
    response: pageOf(Instrument),
  },
  'instruments.labels': { summary: 'What every instrument is called', response: z.array(z.string()) },
  'instruments.create': {
    summary: 'Add an instrument',
    creates: true,
    body: InstrumentDraft,
    response: Instrument,
  },
  'instruments.remove': {
    summary: 'Take an instrument out of the cupboard',
    params: instrumentParams,
    response: Done,
  },
  'instruments.restore': {
    summary: 'Put an instrument back into the cupboard',
    params: instrumentParams,
    response: Instrument,
  },
  'instruments.import': {
    summary: 'Add the rows of a table, all or none of them',
    creates: true,
    body: InstrumentImport,
    response: Imported,
  },
  'instruments.unimport': {
    summary: 'Take all instruments of an import out of the cupboard again, or none of them',
    body: ImportUndo,
    response: Done,
    problems: ['instrument_lent'],
  },
  'instruments.read': { summary: 'One instrument', params: instrumentParams, response: Instrument },
  'instruments.update': {
    summary: 'Change an instrument',
    params: instrumentParams,
    body: InstrumentChange,
    response: Instrument,
    problems: ['changed_meanwhile'],
  },
  'measurements.list': {
    summary: 'An instrument’s measured lengths, newest first',
    params: instrumentParams,
    response: z.array(Measurement),
  },
  'measurements.create': {
    summary: 'Keep a measured string length',
    creates: true,
    params: instrumentParams,
    body: MeasurementDraft,
    response: Instrument,
    problems: ['length_doubtful', 'length_impossible'],
  },
  'tapeSets.list': {
    summary: 'Tapes laid on an instrument, newest first',
    params: instrumentParams,
    response: z.array(TapeSet),
  },
  'tapeSets.create': {
    summary: 'Log tapes as laid',
    creates: true,
    params: instrumentParams,
    body: TapeSetDraft,
    response: Instrument,
    problems: ['instrument_not_measured'],
  },
  'tapeEvents.list': {
    summary: 'All that happened to an instrument’s tapes, in order of time',
    params: instrumentParams,
    response: z.array(TapeEvent),
  },
  'tapeEvents.create': {
    summary: 'Log what happened to a tape; a check that finds it elsewhere is logged as crept',
    creates: true,
    params: instrumentParams,
    body: TapeEventDraft,
    response: Instrument,
  },
  'tapeEvents.remove': { summary: 'Take an entry out of the log', params: eventParams, response: Instrument },
  'tapeEvents.restore': { summary: 'Undo taking an entry out', params: eventParams, response: Instrument },
  'ringFinds.list': {
    summary: 'Places found by ring on an instrument, in order of time',
    params: instrumentParams,
    response: z.array(RingFind),
  },
  'ringFinds.create': {
    summary: 'Keep a place found by ring',
    creates: true,
    params: instrumentParams,
    body: RingFindDraft,
    response: RingFind,
  },
  'ringFinds.update': {
    summary: 'Stand by a place that was questioned, or no longer',
    params: findParams,
    body: RingFindChange,
    response: RingFind,
  },
  'ringFinds.remove': { summary: 'Take a found place out', params: findParams, response: Done },
  'ringFinds.restore': { summary: 'Undo taking a found place out', params: findParams, response: RingFind },
  'attachments.list': {
    summary: 'Files kept beside a record, in order of time',
    params: recordParams,
    response: z.array(Attachment),
  },
  'attachments.create': {
    summary: 'Keep a file beside a record; its bytes are the body',
    creates: true,
    params: recordParams,
    upload: { types: ATTACHMENT_TYPES, limitBytes: ATTACHMENT_LIMIT_BYTES },
    response: Attachment,
    problems: ['too_large', 'unsupported_type', 'upload_incomplete', 'sound_not_allowed', 'removed_since'],
  },
  'attachments.read': {
    summary: 'The bytes of a file',
    params: attachmentParams,
    download: { types: ATTACHMENT_TYPES },
    response: Done,
  },
  'attachments.remove': {
    summary: 'Remove a file for good; there is no way back',
    params: attachmentParams,
    response: Done,
  },
  'sound.stored': { summary: 'How much sound of students is stored', response: StoredSound },
  'sound.remove': {
    summary: 'Remove all sound of students for good; there is no way back',
    response: Done,
  },
  'sessions.list': {
    summary: 'Where one is signed in, the newest first',
    response: z.array(OpenSession),
  },
  'sessions.end': {
    summary: 'End one of one’s own sessions',
    params: z.object({ sessionId: Id }),
    response: Done,
  },
  'sessions.endOthers': { summary: 'End every session but this one', response: Done },
  'password.change': {
    summary: 'Change one’s password; every other session ends',
    body: PasswordChange,
    response: Done,
    problems: ['too_many_attempts'],
  },
  'secondFactor.read': { summary: 'Whether one signs in by a code as well', response: SecondFactor },
  'secondFactor.begin': {
    summary: 'Tell a program of one’s own the secret for codes; nothing changes until a code was confirmed',
    body: SecondFactorBegin,
    response: SecondFactorKey,
    problems: ['too_many_attempts'],
  },
  'secondFactor.confirm': {
    summary: 'Sign in by codes from now on; answers with spare codes, which are shown this once',
    body: SecondFactorCode,
    response: SpareCodes,
    problems: ['wrong_code', 'too_many_attempts'],
  },
  'secondFactor.end': {
    summary: 'Sign in without codes again',
    body: SecondFactorBegin,
    response: Done,
    problems: ['too_many_attempts'],
  },
  'key.use': {
    summary:
      'Choose a password with a key that an owner gave, and come in; every session and second factor of before ends',
    isPublic: true,
    body: KeyUse,
    response: Session,
    problems: ['wrong_key', 'too_many_attempts'],
  },
  'people.list': {
    summary: 'Who teaches in the studio, and who did',
    needs: 'owner',
    response: z.array(Person),
  },
  'people.invite': {
    summary: 'Let somebody teach in the studio; the key is for choosing a password',
    needs: 'owner',
    body: PersonDraft,
    response: Invited,
    problems: ['taken_meanwhile'],
  },
  'people.change': {
    summary: 'Change what somebody may do, or whether they teach here at all; leaving ends their sessions',
    needs: 'owner',
    params: userParams,
    body: PersonChange,
    response: Person,
    problems: ['last_owner'],
  },
  'people.key': {
    summary: 'Give somebody who has lost the password a key for choosing another, in place of a mail',
    needs: 'owner',
    params: userParams,
    response: OneTimeKey,
  },
  'audit.list': {
    summary: 'Who saw and changed what, the newest first',
    needs: 'owner',
    query: AuditQuery,
    response: AuditPage,
  },
  'server.read': {
    summary: 'How this server is: versions, cluster, queue, slow routes, backups',
    needs: 'operator',
    response: ServerState,
  },
} as const satisfies Record<RouteName, Endpoint>

type Part<K extends RouteName, P extends 'params' | 'query' | 'body'> =
  (typeof ENDPOINTS)[K] extends Record<P, infer S> ? S : undefined

/** What a client hands over. */
export type ClientInput<K extends RouteName> = {
  [P in 'params' | 'query' | 'body' as Part<K, P> extends z.ZodType ? P : never]: Part<K, P> extends z.ZodType
    ? z.input<Part<K, P>>
    : never
}

/** What a handler receives, checked and completed. */
export type HandlerInput<K extends RouteName> = {
  [P in 'params' | 'query' | 'body' as Part<K, P> extends z.ZodType ? P : never]: Part<K, P> extends z.ZodType
    ? z.output<Part<K, P>>
    : never
}

export type Answer<K extends RouteName> = z.output<(typeof ENDPOINTS)[K]['response']>
