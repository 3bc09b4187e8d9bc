import type { z } from 'zod'
import type * as attachments from './attachments'
import type * as audit from './audit'
import type * as checks from './checks'
import type * as verdicts from './verdicts'
import type * as hands from './hands'
import type * as instruments from './instruments'
import type * as exercises from './exercises'
import type * as fingerings from './fingerings'
import type * as mastery from './mastery'
import type * as operations from './operations'
import type * as people from './people'
import type * as plans from './plans'
import type * as session from './session'
import type * as settings from './settings'
import type * as setup from './setup'
import type * as students from './students'
import type * as tapes from './tapes'

export {
  ROUTES,
  API_BASE,
  AUTHORITY_PATH,
  UNVERSIONED_BASE,
  CSRF_HEADER,
  IDEMPOTENCY_HEADER,
  type RouteName,
} from './routes'
export { PROBLEMS, type Problem, type ProblemCode, type FieldProblem } from './problems'
export { LONGEST_PAGE, LOUDEST, QUIET_LOUDNESS, SHORTEST_PASSWORD } from './limits'
export { contradictoryLengths, heightSentence, tuningSentence, unreadableLength } from './sentences'
export type { ClientInput, HandlerInput, Answer, Endpoint } from './endpoints'

export type Session = z.output<typeof session.Session>
export type Door = z.output<typeof session.Door>
export type OpenSession = z.output<typeof session.OpenSession>
export type ServerState = z.output<typeof operations.ServerState>
export type Role = people.Role
export type Person = z.output<typeof people.Person>
export type PersonDraft = z.input<typeof people.PersonDraft>
export type PersonChange = z.output<typeof people.PersonChange>
export type OneTimeKey = z.output<typeof people.OneTimeKey>
export type SecondFactor = z.output<typeof people.SecondFactor>
export type SecondFactorKey = z.output<typeof people.SecondFactorKey>
export type Deed = audit.Deed
export type AuditEntry = z.output<typeof audit.AuditEntry>
export type AuditQuery = z.output<typeof audit.AuditQuery>
export type AuditPage = z.output<typeof audit.AuditPage>
export type Studio = z.output<typeof settings.Studio>
export type StudioChange = z.input<typeof settings.StudioChange>
export type StudioSettings = z.output<typeof settings.StudioSettings>
export type OwnSetupItem = z.output<typeof settings.OwnSetupItem>
export type Level = settings.Level
export type SetupRound = z.output<typeof setup.SetupRound>
export type SetupRoundDraft = z.input<typeof setup.SetupRoundDraft>
export type SetupNow = z.output<typeof setup.SetupNow>
export type Pain = z.output<typeof setup.Pain>
export type BodyFit = z.output<typeof setup.BodyFit>
export type BodyFitDraft = z.input<typeof setup.BodyFitDraft>
export type GateMark = z.output<typeof setup.GateMark>
export type GateMarkDraft = z.input<typeof setup.GateMarkDraft>
export type Student = z.output<typeof students.Student>
export type StudentDraft = z.input<typeof students.StudentDraft>
export type StudentChange = z.input<typeof students.StudentChange>
export type Lesson = z.output<typeof students.Lesson>
export type Instrument = z.output<typeof instruments.Instrument>
export type Measurement = z.output<typeof instruments.Measurement>
export type MeasurementDraft = z.input<typeof instruments.MeasurementDraft>
export type PressingChoice = z.output<typeof instruments.PressingChoice>
export type TapeNow = z.output<typeof instruments.TapeNow>
export type TapeSet = z.output<typeof tapes.TapeSet>
export type TapeSetDraft = z.input<typeof tapes.TapeSetDraft>
export type TapeEvent = z.output<typeof tapes.TapeEvent>
export type TapeEventDraft = z.input<typeof tapes.TapeEventDraft>
export type RingFind = z.output<typeof tapes.RingFind>
export type RingFindDraft = z.input<typeof tapes.RingFindDraft>
export type HandMeasurement = z.output<typeof hands.HandMeasurement>
export type HandMeasurementDraft = z.input<typeof hands.HandMeasurementDraft>
export type KeptFingering = z.output<typeof fingerings.KeptFingering>
export type FingeringDraft = z.input<typeof fingerings.FingeringDraft>
export type OwnExercise = z.output<typeof exercises.OwnExercise>
export type Plan = z.output<typeof plans.Plan>
export type PlanDraft = z.input<typeof plans.PlanDraft>
export type PracticeEntry = z.output<typeof plans.PracticeEntry>
export type PracticeSaid = z.input<typeof plans.PracticeDraft>['entries'][number]
export type Mastery = z.output<typeof mastery.Mastery>
export type MasteryMark = z.input<typeof mastery.MasteryMarks>['marks'][number]
export type Check = z.output<typeof checks.Check>
export type CheckDraft = z.input<typeof checks.CheckDraft>
export type CheckSummary = z.output<typeof checks.CheckSummary>
export type KeptVerdict = z.output<typeof verdicts.KeptVerdict>
export type Decision = z.output<typeof verdicts.Decision>
export type DecisionDraft = z.input<typeof verdicts.DecisionDraft>
export type VerdictCounts = z.output<typeof verdicts.VerdictCounts>
export type PastCheck = z.output<typeof checks.PastCheck>
export type History = z.output<typeof checks.History>
export type HeardTake = z.input<typeof checks.HeardTake>
export type HeardReading = z.input<typeof checks.HeardReading>
export type Reading = z.input<typeof checks.Reading>
export type ExerciseName = z.output<typeof checks.ExerciseName>
export type RecordedExercise = z.output<typeof checks.RecordedExercise>
export type ExerciseDraft = CheckDraft['exercise']
export type Landing = z.output<typeof checks.Landing>
export type RecordedStringing = z.output<typeof instruments.RecordedStringing>
export type Attachment = z.output<typeof attachments.Attachment>
export type StoredSound = z.output<typeof attachments.StoredSound>

export interface Page<Row> {
  readonly total: number
  readonly rows: readonly Row[]
}
