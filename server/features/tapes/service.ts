import { v7 as uuid } from 'uuid'
import {
  centsAboveOpen,
  chartTapes,
  familyOf,
  hasCrept,
  handMarks,
  marksOfSchool,
  midiNumber,
  noteName,
  parseNote,
  planTapes,
  schoolOf,
  tapesNow,
  tuningSystem,
  type FamilyId,
  type Stringing,
  type TapeEventKind,
} from '#core'
import type { HandlerInput, Instrument, RingFind, TapeEvent } from '#contracts'
import type { RingFindRow, TapeEventRow } from '../../db/rows'
import type { By } from '../../db/studio-store'
import type { Call } from '../../http/call'
import { insistOnDay } from '../../http/days'
import { fieldProblem, ProblemError } from '../../http/problem-error'
import { findDto, loggedEvent } from '../instruments/dto'
import { instrumentRepository, type InstrumentFacts } from '../instruments/repository'
import { stringingOfFacts } from '../instruments/reads'
import { instrumentService } from '../instruments/service'
import { tapeRepository } from './repository'

/** Stopped notes further up than this are no ring of a low position: a slip of the string or the octave. */
const HIGHEST_FIND_SEMITONES = 24

/** A tape that lies further from where it was has not crept: it was moved, or the number is another's. Common practice, no source. */
const FURTHEST_CREEP_MM = 5

/** Laying tapes, what becomes of them, and the places found by ring. */
export function tapeService(call: Pick<Call, 'store' | 'signedIn' | 'now'>) {
  const { store, signedIn, now } = call
  const instruments = instrumentRepository(store)
  const tapes = tapeRepository(store)
  const userId = signedIn.session.user.id
  const read = (instrumentId: string) => instrumentService(call).read(instrumentId)

  async function existing(id: string): Promise<InstrumentFacts> {
    const facts = await instruments.factsOf(id)
    if (!facts) throw new ProblemError('not_found')
    return facts
  }

  function eventRow(
    instrumentId: string,
    values: Pick<TapeEventRow, 'kind' | 'markId' | 'placeMm' | 'onDate' | 'reason'>,
  ): Omit<TapeEventRow, 'studioId'> {
    return { id: uuid(), instrumentId, userId, recordedAt: now, removedAt: null, ...values }
  }

  async function insistOnInstrument(id: string): Promise<void> {
    if (!(await instruments.exists(id))) throw new ProblemError('not_found')
  }

  async function existingFind(id: string): Promise<By<RingFindRow>> {
    const row = await tapes.findWith(id)
    if (!row) throw new ProblemError('not_found')
    return row
  }

  async function findNow(id: string): Promise<RingFind> {
    return findDto(await existingFind(id))
  }

  return {
    /** Lays a set of tapes: what lies at the same mark is replaced, in the log too. */
    async lay(instrumentId: string, draft: HandlerInput<'tapeSets.create'>['body']): Promise<Instrument> {
      insistOnDay(now, draft.laidOn, 'laidOn')
      const facts = await existing(instrumentId)
      const { marks, reason, ...settings } = draft
      const stringing = stringingOfFacts(facts, settings.system)
      const laid = marks ? byHand(facts, stringing.lengthMm, marks) : bySchool(stringing, settings)
      const lying = new Set(tapesNow(facts.events.map(loggedEvent)).map((tape) => tape.markId))
      await tapes.addTapeSet({
        id: uuid(),
        instrumentId,
        userId,
        ...settings,
        lengthMm: stringing.lengthMm,
        marks: laid,
        recordedAt: now,
      })
      await tapes.addEvents(
        laid.map(({ markId, placeMm }) =>
          eventRow(instrumentId, {
            kind: lying.has(markId) ? 'replaced' : 'laid',
            markId,
            placeMm,
            onDate: draft.laidOn,
            reason,
          }),
        ),
      )
      return read(instrumentId)
    },

    async events(instrumentId: string): Promise<TapeEvent[]> {
      await insistOnInstrument(instrumentId)
      return (await tapes.events(instrumentId)).map(eventDto)
    },

    async log(instrumentId: string, draft: HandlerInput<'tapeEvents.create'>['body']): Promise<Instrument> {
      insistOnDay(now, draft.on, 'on')
      const facts = await existing(instrumentId)
      const { markId, placeMm } = draft
      if (markId !== null) insistOnMark(facts, markId, 'markId')
      if (placeMm !== null) insistOnPlace(facts.measurement?.lengthMm, placeMm, 'placeMm')
      const tape = tapesNow(facts.events.map(loggedEvent)).find((t) => t.markId === markId)
      if (!tape && (draft.kind === 'removed' || draft.kind === 'faded' || draft.kind === 'moved'))
        throw fieldProblem('markId', 'No such tape lies on this instrument: log it as laid first.')
      const wandered =
        draft.kind === 'checked' && tape && placeMm !== null ? Math.abs(placeMm - tape.placeMm) : 0
      if (wandered > FURTHEST_CREEP_MM && !draft.keepAnyway)
        throw new ProblemError('place_doubtful', {
          detail: `It lay at ${tape!.placeMm.toFixed(1)} mm. Nothing was kept.`,
          fields: [
            {
              path: 'placeMm',
              message: `It lay at ${tape!.placeMm.toFixed(1)} mm, ${wandered.toFixed(1)} mm away. Tapes creep a millimetre or two: look at the tape and the number again, or log it as moved.`,
            },
          ],
        })
      const crept = draft.kind === 'checked' && tape && placeMm !== null && hasCrept({ ...tape, placeMm })
      await tapes.addEvents([
        eventRow(instrumentId, {
          kind: crept ? 'crept' : draft.kind,
          markId,
          placeMm,
          onDate: draft.on,
          reason: draft.reason,
        }),
      ])
      return read(instrumentId)
    },

    async setEventRemoved(id: string, isRemoved: boolean): Promise<Instrument> {
      const row = await tapes.event(id)
      if (!row) throw new ProblemError('not_found')
      await tapes.changeEvent(id, { removedAt: isRemoved ? now : null })
      return read(row.instrumentId)
    },

    async finds(instrumentId: string): Promise<RingFind[]> {
      await insistOnInstrument(instrumentId)
      return (await tapes.finds(instrumentId)).map(findDto)
    },

    async find(instrumentId: string, draft: HandlerInput<'ringFinds.create'>['body']): Promise<RingFind> {
      insistOnDay(now, draft.foundOn, 'foundOn')
      const facts = await existing(instrumentId)
      const open = parseNote(draft.string)
      const stopped = parseNote(draft.note)
      const system = tuningSystem(draft.system)
      if (!open || !stopped || !system) throw new Error('the contract let a note or a system through')
      const string = noteName(open)
      if (!facts.instrument.tuning.includes(string))
        throw fieldProblem(
          'string',
          `This instrument has the strings ${facts.instrument.tuning.join(' ')}: choose one of them.`,
        )
      const semitones = midiNumber(stopped) - midiNumber(open)
      if (semitones < 1 || semitones > HIGHEST_FIND_SEMITONES)
        throw fieldProblem(
          'note',
          `${noteName(stopped)} is not stopped on the ${string} string: look at the string and the octave.`,
        )
      insistOnPlace(facts.measurement?.lengthMm, draft.placeMm, 'placeMm')
      const id = uuid()
      await tapes.addFind({
        id,
        instrumentId,
        userId,
        string,
        note: noteName(stopped),
        system: draft.system,
        cents: centsAboveOpen(system, open, stopped),
        placeMm: draft.placeMm,
        isTrusted: false,
        foundOn: draft.foundOn,
        recordedAt: now,
        removedAt: null,
      })
      return findNow(id)
    },

    async trustFind(id: string, isTrusted: boolean): Promise<RingFind> {
      await existingFind(id)
      await tapes.changeFind(id, { isTrusted })
      return findNow(id)
    },

    async setFindRemoved(id: string, isRemoved: boolean): Promise<RingFind> {
      await existingFind(id)
      await tapes.changeFind(id, { removedAt: isRemoved ? now : null })
      return findNow(id)
    },
  }
}

interface LaidMark {
  readonly markId: string
  readonly placeMm: number
}

function byHand({ instrument }: InstrumentFacts, lengthMm: number, marks: readonly LaidMark[]): LaidMark[] {
  for (const [i, { markId, placeMm }] of marks.entries()) {
    insistOnMark({ instrument }, markId, `marks.${i}.markId`)
    insistOnPlace(lengthMm, placeMm, `marks.${i}.placeMm`)
    if (marks.findIndex((m) => m.markId === markId) !== i)
      throw fieldProblem(`marks.${i}.markId`, 'Two tapes have the same place: name each once.')
  }
  return [...marks]
}

/** The marks of a school where the instrument's own strings have them: uneven, pressed and rung as they are. */
function bySchool(
  stringing: Stringing,
  { schoolId, tapeWidthMm }: { readonly schoolId: string; readonly tapeWidthMm: number },
): LaidMark[] {
  const { family } = stringing
  const school = schoolOf(family, schoolId)
  if (!school) throw fieldProblem('schoolId', `Choose one of the ${family.name}’s tape schools.`)
  const plan = planTapes(stringing, marksOfSchool(family, school))
  return chartTapes(stringing, plan, { widthMm: tapeWidthMm, contact: 'centre' }).map(({ id, middleMm }) => ({
    markId: id,
    placeMm: middleMm,
  }))
}

function insistOnMark(
  { instrument }: Pick<InstrumentFacts, 'instrument'>,
  markId: string,
  path: string,
): void {
  const family = familyOf(instrument.family as FamilyId)
  if (!handMarks(family).some((mark) => mark.id === markId))
    throw fieldProblem(path, `The ${family.name} has no mark ${markId}: choose one up to the octave.`)
}

function insistOnPlace(lengthMm: number | undefined, placeMm: number, path: string): void {
  if (lengthMm !== undefined && placeMm >= lengthMm)
    throw fieldProblem(path, `The string is ${lengthMm.toFixed(1)} mm long: a place lies before its end.`)
}

function eventDto(row: By<TapeEventRow>): TapeEvent {
  return {
    id: row.id,
    instrumentId: row.instrumentId,
    kind: row.kind as TapeEventKind,
    markId: row.markId,
    placeMm: row.placeMm,
    on: row.onDate,
    reason: row.reason,
    by: row.by,
    recordedAt: row.recordedAt.toISOString(),
  }
}
