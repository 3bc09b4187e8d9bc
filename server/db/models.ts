import { DataTypes, type Model, type ModelAttributes, type ModelStatic, type Sequelize } from 'sequelize'
import type * as rows from './rows'

/** A table whose rows come and go as plain objects of type `Row`. */
export type Table<Row extends object> = ModelStatic<Model<Row, Row>>

const uuid = { type: DataTypes.UUID, allowNull: false }
const text = (length: number) => ({ type: DataTypes.STRING(length), allowNull: false })
const instant = { type: DataTypes.DATE(3), allowNull: false }
const maybe = { allowNull: true }
const double = { type: DataTypes.DOUBLE, allowNull: false }
const integer = { type: DataTypes.INTEGER, allowNull: false }
const day = { type: DataTypes.DATEONLY, allowNull: false }
const json = { type: DataTypes.JSON, allowNull: false }
const key = { ...uuid, primaryKey: true }

/** Every table. The migrations make them; these only say how rows are read and written. */
export function defineModels(sequelize: Sequelize) {
  function table<Row extends object>(
    name: string,
    attributes: ModelAttributes<Model<Row, Row>, Row>,
  ): Table<Row> {
    // Sequelize writes each column's name into its attribute, so no two columns may share one.
    const own = Object.fromEntries(
      Object.entries(attributes).map(([column, type]) => [column, { ...(type as object) }]),
    )
    return sequelize.define<Model<Row, Row>>(name, own as typeof attributes, {
      tableName: name,
      underscored: true,
      timestamps: false,
    })
  }

  /** A table whose rows belong to a studio: a query that names none is a programming error and throws. */
  function studioTable<Row extends { studioId: string }>(
    name: string,
    attributes: ModelAttributes<Model<Row, Row>, Row>,
  ): Table<Row> {
    const model = table<Row>(name, attributes)
    const insist = (options: object) => {
      // Where rows are taken away, Sequelize has put the column's name in the attribute's place already.
      const where = (options as { where?: { studioId?: unknown; studio_id?: unknown } }).where
      if (typeof (where?.studioId ?? where?.studio_id) !== 'string')
        throw new Error(`query on ${name} names no studio`)
    }
    model.addHook('beforeFind', insist)
    model.addHook('beforeCount', insist)
    model.addHook('beforeBulkUpdate', insist)
    model.addHook('beforeBulkDestroy', insist)
    return model
  }

  const models = {
    studio: table<rows.StudioRow>('studio', {
      id: key,
      name: text(120),
      system: text(400),
      version: integer,
      settings: { ...json, ...maybe },
      createdAt: instant,
    }),
    /** Signing in finds a user before any studio is known, so these two are not studio tables. */
    user: table<rows.UserRow>('user', {
      id: key,
      studioId: uuid,
      email: text(200),
      name: text(120),
      passwordHash: text(200),
      role: text(20),
      leftAt: { ...instant, ...maybe },
    }),
    secondFactor: studioTable<rows.SecondFactorRow>('second_factor', {
      id: key,
      studioId: uuid,
      userId: uuid,
      sealed: text(400),
      confirmedAt: { ...instant, ...maybe },
      lastStep: { type: DataTypes.BIGINT, allowNull: false },
      recordedAt: instant,
    }),
    spareCode: studioTable<rows.SpareCodeRow>('spare_code', {
      id: key,
      studioId: uuid,
      userId: uuid,
      hash: text(64),
      usedAt: { ...instant, ...maybe },
    }),
    oneTimeKey: studioTable<rows.OneTimeKeyRow>('one_time_key', {
      id: key,
      studioId: uuid,
      userId: uuid,
      hash: text(64),
      madeBy: uuid,
      madeAt: instant,
      untilAt: instant,
      usedAt: { ...instant, ...maybe },
    }),
    audit: studioTable<rows.AuditRow>('audit', {
      id: key,
      studioId: uuid,
      userId: { ...uuid, ...maybe },
      at: instant,
      deed: text(40),
      studentId: { ...uuid, ...maybe },
      subjectId: { ...uuid, ...maybe },
    }),
    erasure: studioTable<rows.ErasureRow>('erasure', {
      id: key,
      studioId: uuid,
      studentId: uuid,
      erasedAt: instant,
    }),
    operation: table<rows.OperationRow>('operation', {
      id: key,
      kind: text(20),
      at: instant,
      isSound: { type: DataTypes.BOOLEAN, allowNull: false },
      report: json,
    }),
    session: table<rows.SessionRow>('session', {
      id: { ...text(64), primaryKey: true },
      studioId: uuid,
      userId: uuid,
      publicId: uuid,
      device: text(20),
      createdAt: instant,
      seenAt: instant,
      expiresAt: instant,
    }),
    student: studioTable<rows.StudentRow>('student', {
      id: key,
      studioId: uuid,
      version: integer,
      name: text(120),
      birthYear: { ...integer, ...maybe },
      family: text(20),
      toleranceCents: integer,
      level: { ...text(20), ...maybe },
      schools: { ...json, ...maybe },
      setupNow: { ...json, ...maybe },
      tapeSchoolId: { ...text(40), ...maybe },
      system: { ...text(400), ...maybe },
      lessonWeekday: { ...integer, ...maybe },
      lessonTime: { ...text(5), ...maybe },
      soundConsent: { ...json, ...maybe },
      note: { type: DataTypes.TEXT, allowNull: false },
      createdAt: instant,
      removedAt: { ...instant, ...maybe },
    }),
    instrument: studioTable<rows.InstrumentRow>('instrument', {
      id: key,
      studioId: uuid,
      version: integer,
      label: text(60),
      family: text(20),
      sizeId: text(20),
      tuning: json,
      pressing: { ...json, ...maybe },
      warmHands: { type: DataTypes.BOOLEAN, allowNull: false },
      createdAt: instant,
      removedAt: { ...instant, ...maybe },
    }),
    loan: studioTable<rows.LoanRow>('loan', {
      id: key,
      studioId: uuid,
      studentId: uuid,
      instrumentId: uuid,
      fromDate: day,
      toDate: { ...day, ...maybe },
    }),
    measurement: studioTable<rows.MeasurementRow>('measurement', {
      id: key,
      studioId: uuid,
      instrumentId: uuid,
      userId: uuid,
      lengthMm: double,
      typed: text(40),
      method: text(20),
      stringLengthsMm: { ...json, ...maybe },
      measuredOn: day,
      recordedAt: instant,
    }),
    tapeSet: studioTable<rows.TapeSetRow>('tape_set', {
      id: key,
      studioId: uuid,
      instrumentId: uuid,
      userId: uuid,
      schoolId: text(40),
      system: text(400),
      lengthMm: double,
      tapeWidthMm: double,
      marks: json,
      laidOn: day,
      recordedAt: instant,
    }),
    tapeEvent: studioTable<rows.TapeEventRow>('tape_event', {
      id: key,
      studioId: uuid,
      instrumentId: uuid,
      userId: uuid,
      kind: text(20),
      markId: { ...text(8), ...maybe },
      placeMm: { ...double, ...maybe },
      onDate: day,
      reason: text(400),
      recordedAt: instant,
      removedAt: { ...instant, ...maybe },
    }),
    ringFind: studioTable<rows.RingFindRow>('ring_find', {
      id: key,
      studioId: uuid,
      instrumentId: uuid,
      userId: uuid,
      string: text(8),
      note: text(8),
      system: text(400),
      cents: double,
      placeMm: double,
      isTrusted: { type: DataTypes.BOOLEAN, allowNull: false },
      foundOn: day,
      recordedAt: instant,
      removedAt: { ...instant, ...maybe },
    }),
    handMeasurement: studioTable<rows.HandMeasurementRow>('hand_measurement', {
      id: key,
      studioId: uuid,
      studentId: uuid,
      userId: uuid,
      measuredOn: day,
      comfortableSpanMm: double,
      reachedSpanMm: { ...double, ...maybe },
      fingerLengthsMm: { ...json, ...maybe },
      fingertipWidthMm: { ...double, ...maybe },
      thumb: { ...text(20), ...maybe },
      recordedAt: instant,
      removedAt: { ...instant, ...maybe },
    }),
    practicePlan: studioTable<rows.PracticePlanRow>('practice_plan', {
      id: key,
      studioId: uuid,
      studentId: uuid,
      userId: uuid,
      startsOn: day,
      family: text(20),
      instrumentId: { ...uuid, ...maybe },
      minutesADay: { ...integer, field: 'minutes_a_day' },
      weekdays: json,
      cards: json,
      pieces: json,
      recordedAt: instant,
      removedAt: { ...instant, ...maybe },
    }),
    practiceEntry: studioTable<rows.PracticeEntryRow>('practice_entry', {
      id: key,
      studioId: uuid,
      studentId: uuid,
      userId: uuid,
      exerciseId: text(40),
      practisedOn: day,
      isDone: { type: DataTypes.BOOLEAN, allowNull: false },
      minutes: { ...integer, ...maybe },
      times: { ...integer, ...maybe },
      recordedAt: instant,
    }),
    masteryMark: studioTable<rows.MasteryMarkRow>('mastery_mark', {
      id: key,
      studioId: uuid,
      studentId: uuid,
      userId: uuid,
      kind: text(20),
      item: text(40),
      state: text(20),
      recordedAt: instant,
    }),
    ownFingering: studioTable<rows.OwnFingeringRow>('own_fingering', {
      id: key,
      studioId: uuid,
      userId: uuid,
      family: text(20),
      line: text(160),
      named: json,
      notes: { ...json, ...maybe },
      settled: json,
      recordedAt: instant,
    }),
    setupRound: studioTable<rows.SetupRoundRow>('setup_round', {
      id: key,
      studioId: uuid,
      studentId: uuid,
      userId: uuid,
      takenAt: instant,
      family: text(20),
      answers: json,
      passed: json,
      stoppedAt: { ...text(60), ...maybe },
      painId: { ...uuid, ...maybe },
      note: { type: DataTypes.TEXT, allowNull: false },
      recordedAt: instant,
      removedAt: { ...instant, ...maybe },
    }),
    pain: studioTable<rows.PainRow>('pain', {
      id: key,
      studioId: uuid,
      studentId: uuid,
      userId: uuid,
      toldOn: day,
      place: text(80),
      since: text(80),
      note: { type: DataTypes.TEXT, allowNull: false },
      clearedOn: { ...day, ...maybe },
      clearedNote: text(300),
      recordedAt: instant,
      removedAt: { ...instant, ...maybe },
    }),
    bodyFit: studioTable<rows.BodyFitRow>('body_fit', {
      id: key,
      studioId: uuid,
      studentId: uuid,
      userId: uuid,
      family: text(20),
      fittedOn: day,
      measures: json,
      note: { type: DataTypes.TEXT, allowNull: false },
      recordedAt: instant,
      removedAt: { ...instant, ...maybe },
    }),
    gateMark: studioTable<rows.GateMarkRow>('gate_mark', {
      id: key,
      studioId: uuid,
      studentId: uuid,
      userId: uuid,
      gate: text(20),
      item: text(20),
      state: text(20),
      note: { type: DataTypes.TEXT, allowNull: false },
      recordedAt: instant,
    }),
    check: studioTable<rows.CheckRow>('hand_check', {
      id: key,
      studioId: uuid,
      studentId: uuid,
      instrumentId: uuid,
      userId: uuid,
      takenAt: instant,
      exercise: { ...json, ...maybe },
      stringing: { ...json, ...maybe },
      toleranceCents: integer,
      tapesCovered: { type: DataTypes.BOOLEAN, allowNull: false },
      hasTrack: { type: DataTypes.BOOLEAN, allowNull: false },
      tapesMm: { ...json, ...maybe },
      verdict: json,
      decision: { ...json, ...maybe },
      summary: { ...json, ...maybe },
      likely: { ...json, ...maybe },
      belief: { ...json, ...maybe },
      unmoved: { ...json, ...maybe },
      note: { type: DataTypes.TEXT, allowNull: false },
      recordedAt: instant,
      removedAt: { ...instant, ...maybe },
    }),
    landing: studioTable<rows.LandingRow>('landing', {
      checkId: key,
      studioId: uuid,
      position: { ...integer, primaryKey: true },
      stringIndex: integer,
      finger: integer,
      note: text(8),
      positionId: { ...text(40), ...maybe },
      placeMm: double,
      cents: double,
      sigmaCents: double,
      atMs: { ...double, ...maybe },
      source: text(20),
      settledCents: { ...double, ...maybe },
      settledSigmaCents: { ...double, ...maybe },
      lastsMs: { ...double, ...maybe },
      confidence: { ...double, ...maybe },
      wobbleCents: { ...double, ...maybe },
      brightnessDb: { ...double, ...maybe },
      vibratoWidthCents: { ...double, ...maybe },
      vibratoTopCents: { ...double, ...maybe },
    }),
    takeTrack: studioTable<rows.TakeTrackRow>('take_track', {
      checkId: key,
      studioId: uuid,
      bytes: { type: DataTypes.BLOB('medium'), allowNull: false },
    }),
    attachment: studioTable<rows.AttachmentRow>('attachment', {
      id: key,
      studioId: uuid,
      userId: uuid,
      checkId: { ...uuid, ...maybe },
      studentId: { ...uuid, ...maybe },
      instrumentId: { ...uuid, ...maybe },
      mediaType: text(40),
      byteCount: integer,
      sha256: text(64),
      isWhole: { type: DataTypes.BOOLEAN, allowNull: false },
      recordedAt: instant,
    }),
    attachmentChunk: studioTable<rows.AttachmentChunkRow>('attachment_chunk', {
      attachmentId: key,
      studioId: uuid,
      position: { ...integer, primaryKey: true },
      bytes: { type: DataTypes.BLOB('medium'), allowNull: false },
    }),
    soundRemoval: studioTable<rows.SoundRemovalRow>('sound_removal', {
      id: key,
      studioId: uuid,
      studentId: { ...uuid, ...maybe },
      attachmentId: { ...uuid, ...maybe },
      removedAt: instant,
    }),
    idempotencyKey: studioTable<rows.IdempotencyKeyRow>('idempotency_key', {
      studioId: { ...uuid, primaryKey: true },
      idempotencyKey: { ...text(80), primaryKey: true },
      requestHash: text(64),
      answer: { ...json, ...maybe },
      createdAt: instant,
    }),
    rateLimit: table<rows.RateLimitRow>('rate_limit', {
      id: { ...text(64), primaryKey: true },
      hits: integer,
      resetAt: instant,
    }),
  }
  const { user } = models
  const written = [
    models.measurement,
    models.tapeSet,
    models.tapeEvent,
    models.ringFind,
    models.handMeasurement,
    models.masteryMark,
    models.practicePlan,
    models.practiceEntry,
    models.ownFingering,
    models.setupRound,
    models.pain,
    models.bodyFit,
    models.gateMark,
    models.check,
    models.attachment,
  ]
  for (const model of written)
    (model as Table<{ userId: string }>).belongsTo(user, {
      as: TEACHER,
      foreignKey: 'userId',
      constraints: false,
    })
  return models
}

/** Who wrote a row, where a table says so. */
export const TEACHER = 'teacher'

export type Models = ReturnType<typeof defineModels>
