import { z } from 'zod'
import { BODY_FIT_LIMITS, GATE_IDS, SAID_ITEMS, setupMeasureOf, type BodyFitPart } from '#core'
import { Family, Id, Instant, IsoDate, line, NOTE_LENGTH } from './common'

export const Answer = z.enum(['yes', 'nearly', 'no'])
const ItemId = z.string().min(1).max(60)

const answered = {
  itemId: ItemId,
  answer: Answer,
  /** In the item’s own unit; null where it was judged by eye. */
  measured: z.number({ error: 'Give the measured value as a number.' }).nullable().default(null),
  /** How an item of the studio’s own was worded that day; null for the tool’s. */
  question: z.string().max(160).nullable().default(null),
}

const AnsweredItem = z.object(answered)

/** A place that hurts, is numb or tingles. */
const painWords = {
  place: line('the place that hurts', 80),
  /** In the player’s words: “since the holidays”. */
  since: z.string().trim().max(80, { error: 'Keep it to 80 characters.' }).default(''),
  note: z.string().max(NOTE_LENGTH).default(''),
}

export const PainDraft = z
  .object({ toldOn: IsoDate, ...painWords })
  .meta({ id: 'PainDraft', examples: [{ toldOn: '2026-11-28', place: 'left wrist', since: 'a week' }] })

export const Pain = z
  .object({
    id: Id,
    toldOn: IsoDate,
    ...painWords,
    by: z.string(),
    clearedOn: IsoDate.nullable(),
    clearedNote: z.string(),
    removedAt: Instant.nullable(),
  })
  .meta({ id: 'Pain' })

export const PainClearing = z
  .object({
    on: IsoDate,
    /** Who said that playing is right again. */
    note: line('who said that playing is all right again', 300),
  })
  .meta({
    id: 'PainClearing',
    examples: [{ on: '2026-11-28', note: 'Rested a week; the doctor says play.' }],
  })

const round = {
  takenAt: Instant,
  /** Whose items were asked; a student may have moved on since. */
  family: Family,
  /** Items gone past although they were answered “no”. */
  passed: z.array(ItemId).max(100).default([]),
  note: z.string().max(NOTE_LENGTH).default(''),
}

export const SetupRoundDraft = z
  .object({
    ...round,
    answers: z
      .array(AnsweredItem)
      .min(1, { error: 'Answer at least one question.' })
      .max(120, { error: 'Keep one round to 120 answers.' })
      .refine((all) => new Set(all.map(({ itemId }) => itemId)).size === all.length, {
        error: 'An item is answered twice.',
      }),
    /** What was told where pain was answered “no”: something hurts. */
    pain: z.object(painWords).nullable().default(null),
  })
  .superRefine(({ answers, pain }, context) => {
    const hurts = answers.some(({ itemId, answer }) => itemId === 'pain' && answer !== 'yes')
    if (hurts && !pain)
      context.addIssue({ code: 'custom', path: ['pain'], message: 'Name the place that hurts.' })
    if (!hurts && pain)
      context.addIssue({
        code: 'custom',
        path: ['pain'],
        message: 'Pain is told, and answered otherwise: answer it “no”, or leave out where it hurts.',
      })
    answers.forEach(({ itemId, measured }, index) => {
      const measure = setupMeasureOf(itemId)
      if (measured === null) return
      const path = ['answers', index, 'measured']
      if (!measure) return context.addIssue({ code: 'custom', path, message: 'This item is judged by eye.' })
      const [least, most] = measure.possible
      const unit = measure.unit === 'mm' ? 'mm' : 'degrees'
      if (measured < least || measured > most)
        context.addIssue({
          code: 'custom',
          path,
          message: `Nobody measures that here: give ${least} to ${most} ${unit}.`,
        })
    })
  })
  .meta({
    id: 'SetupRoundDraft',
    examples: [
      {
        takenAt: '2026-11-28T09:41:00Z',
        family: 'violin',
        answers: [
          { itemId: 'pain', answer: 'yes' },
          { itemId: 'tension', answer: 'yes' },
          { itemId: 'gap', answer: 'no', measured: 2 },
        ],
      },
    ],
  })

export const SetupRound = z
  .object({
    id: Id,
    ...round,
    answers: z.array(AnsweredItem),
    /** The item at which the round ended early; null where all was asked. */
    stoppedAt: z.string().nullable(),
    painId: Id.nullable(),
    by: z.string(),
    removedAt: Instant.nullable(),
  })
  .meta({ id: 'SetupRound' })

/** How the setup stands: the newest answer to every item of the present family that is not right. */
export const SetupNow = z
  .object({
    takenAt: Instant,
    stoppedAt: z.string().nullable(),
    standings: z.array(
      z.object({
        itemId: z.string(),
        answer: Answer,
        measured: z.number().nullable(),
        question: z.string().nullable(),
        since: IsoDate,
        seenOn: IsoDate,
      }),
    ),
  })
  .meta({ id: 'SetupNow' })

function fitPart(part: BodyFitPart) {
  const [least, most] = BODY_FIT_LIMITS[part]
  return z
    .number({ error: 'Give a number.' })
    .min(least, { error: `Nobody is set up like that: give ${least} to ${most}.` })
    .max(most, { error: `Nobody is set up like that: give ${least} to ${most}.` })
    .nullable()
}

const fit = {
  family: Family,
  fittedOn: IsoDate,
  chinRestMm: fitPart('chinRestMm'),
  restNearMm: fitPart('restNearMm'),
  restFarMm: fitPart('restFarMm'),
  handsOff: fitPart('handsOff'),
  bodyAngle: fitPart('bodyAngle'),
  thumbMm: fitPart('thumbMm'),
  endpinMm: fitPart('endpinMm'),
  pegMm: fitPart('pegMm'),
  seatMm: fitPart('seatMm'),
  lean: fitPart('lean'),
  note: z.string().max(NOTE_LENGTH),
}

export const BodyFit = z
  .object({ id: Id, ...fit, by: z.string(), removedAt: Instant.nullable() })
  .meta({ id: 'BodyFit' })

const PARTS = Object.keys(BODY_FIT_LIMITS) as BodyFitPart[]

/** What was measured now: what is left out stays as it was last time, whoever measured it, and null is measured no more. */
export const BodyFitDraft = z
  .object({
    ...fit,
    ...(Object.fromEntries(PARTS.map((part) => [part, fit[part].optional()])) as Record<
      BodyFitPart,
      z.ZodOptional<ReturnType<typeof fitPart>>
    >),
    note: fit.note.optional(),
  })
  .refine((draft) => (draft.note ?? '').trim() !== '' || PARTS.some((part) => draft[part] !== undefined), {
    path: ['note'],
    error: 'Measure at least one thing, or write how it is set up.',
  })
  .meta({
    id: 'BodyFitDraft',
    examples: [{ family: 'violin', fittedOn: '2026-11-28', restNearMm: 32, handsOff: 5 }],
  })

const GateMarkItem = z.enum(['gate', ...SAID_ITEMS])
const gateMark = {
  gate: z.enum(GATE_IDS),
  /** The gate itself, or something that only the teacher can say. */
  item: GateMarkItem,
  /** `open` or `shut` overrules what was reckoned, `reckoned` goes back to it; `yes` or `no` is said of an item. */
  state: z.enum(['open', 'shut', 'reckoned', 'yes', 'no']),
  note: z.string().max(NOTE_LENGTH),
}

/** What a teacher said of a gate last. */
export const GateMark = z.object({ ...gateMark, by: z.string(), at: Instant }).meta({ id: 'GateMark' })

export const GateMarkDraft = z
  .object({ ...gateMark, note: gateMark.note.default('') })
  .refine(({ item, state }) => (item === 'gate') === ['open', 'shut', 'reckoned'].includes(state), {
    path: ['state'],
    error: 'A gate is open, shut or reckoned; a thing that is said is yes or no.',
  })
  .meta({
    id: 'GateMarkDraft',
    examples: [{ gate: 'vibrato', item: 'steady_bow', state: 'yes' }],
  })
