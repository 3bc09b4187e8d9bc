import { v7 as uuid } from 'uuid'
import {
  checkFromMeter,
  familyOf,
  judgeHand,
  noteName,
  parseNote,
  shapeOf,
  tuningSystem,
  type FamilyId,
  type HandShape,
} from '#core'
import type { Check, FieldProblem, HandlerInput } from '#contracts'
import type { InstrumentRow } from '../../db/rows'
import type { Call } from '../../http/call'
import { fieldProblem, ProblemError } from '../../http/problem-error'
import { instrumentRepository } from '../instruments/repository'
import { tuningOf } from '../instruments/service'
import { studentRepository } from '../students/repository'
import { checkDto, keptVerdict, verdictRows } from './dto'
import { checkRepository } from './repository'

type Draft = HandlerInput<'checks.create'>['body']

export function checkService({ store, signedIn, now }: Pick<Call, 'store' | 'signedIn' | 'now'>) {
  const repository = checkRepository(store)
  const instruments = instrumentRepository(store)

  async function existingStudent(id: string) {
    const student = await studentRepository(store).byId(id)
    if (!student) throw new ProblemError('not_found')
    return student
  }

  async function read(id: string): Promise<Check> {
    const facts = await repository.byId(id)
    if (!facts) throw new ProblemError('not_found')
    return checkDto(facts, await instruments.teacherNames())
  }

  return {
    async list(studentId: string): Promise<Check[]> {
      await existingStudent(studentId)
      const names = await instruments.teacherNames()
      return (await repository.ofStudent(studentId)).map((facts) => checkDto(facts, names))
    },

    /** Judges the readings with the core, whatever the page thought of them, and keeps both. */
    async create(studentId: string, draft: Draft): Promise<Check> {
      const student = await existingStudent(studentId)
      const facts = await instruments.factsOf(draft.instrumentId)
      if (!facts) throw fieldProblem('instrumentId', 'Choose one of the studio’s instruments.')
      const { instrument, measurement } = facts
      if (!measurement)
        throw new ProblemError('instrument_not_measured', {
          detail: 'Measure the string from nut to bridge first.',
        })
      const { open, shape, system } = handOf(instrument, draft)
      const { lengthMm } = measurement
      const { toleranceCents } = student
      const verdict = judgeHand(
        checkFromMeter({ lengthMm, open, shape, system, shown: draft.readings, toleranceCents }),
      )
      const id = uuid()
      const { outcome, detail, findings } = verdictRows(keptVerdict(verdict))
      await repository.add({
        check: {
          id,
          studentId,
          instrumentId: instrument.id,
          userId: signedIn.session.user.id,
          takenAt: new Date(draft.takenAt),
          string: noteName(open),
          shapeId: shape.id,
          system: draft.system,
          lengthMm,
          toleranceCents,
          outcome,
          detail,
          note: draft.note,
          recordedAt: now,
          removedAt: null,
        },
        readings: draft.readings.map((reading, position) => ({
          id: uuid(),
          checkId: id,
          position,
          ...reading,
        })),
        findings: findings.map((finding) => ({ id: uuid(), checkId: id, ...finding })),
      })
      return read(id)
    },

    async remove(id: string): Promise<null> {
      if (!(await repository.setRemoved(id, now))) throw new ProblemError('not_found')
      return null
    },

    async restore(id: string): Promise<Check> {
      await read(id)
      await repository.setRemoved(id, null)
      return read(id)
    },
  }
}

/** String, shape and system of a check, or every field that the instrument does not have. */
function handOf(instrument: InstrumentRow, draft: Draft) {
  const family = familyOf(instrument.family as FamilyId)
  const wanted = parseNote(draft.string)
  const open = tuningOf(instrument.tuning).find((n) => wanted && noteName(n) === noteName(wanted))
  const shape = shapeOf(family, draft.shapeId)
  const system = tuningSystem(draft.system)
  const fields: FieldProblem[] = []
  if (!open)
    fields.push({
      path: 'string',
      message: `This ${family.id} has the strings ${instrument.tuning.join(', ')}.`,
    })
  if (!shape)
    fields.push({
      path: 'shapeId',
      message: `Choose one of the ${family.id}’s hand shapes: ${family.shapes.map((s) => s.id).join(', ')}.`,
    })
  else fields.push(...strangeFingers(family.id, shape, draft.readings))
  if (!open || !shape || !system || fields.length > 0) throw new ProblemError('invalid_request', { fields })
  return { open, shape, system }
}

function strangeFingers(familyId: FamilyId, shape: HandShape, readings: Draft['readings']): FieldProblem[] {
  const fingers = Object.keys(shape.fingers)
  return readings.flatMap(({ finger }, i) =>
    finger === 0 || shape.fingers[finger]
      ? []
      : [
          {
            path: `readings.${i}.finger`,
            message: `Finger ${finger} stops no note of its own on the ${familyId} here; use ${fingers.join(', ')}.`,
          },
        ],
  )
}
