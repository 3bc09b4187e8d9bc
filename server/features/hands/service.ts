import { v7 as uuid } from 'uuid'
import type { HandlerInput, HandMeasurement } from '#contracts'
import type { Call } from '../../http/call'
import { insistOnDay } from '../../http/days'
import { ProblemError } from '../../http/problem-error'
import { studentRepository } from '../students/repository'
import { handDto } from './dto'
import { handRepository } from './repository'

/** A student's hand, measured over the years. */
export function handService({ store, signedIn, now }: Pick<Call, 'store' | 'signedIn' | 'now'>) {
  const hands = handRepository(store)

  async function insistOnStudent(id: string): Promise<void> {
    if (!(await studentRepository(store).byId(id))) throw new ProblemError('not_found')
  }

  async function read(id: string): Promise<HandMeasurement> {
    const row = await hands.byId(id)
    if (!row) throw new ProblemError('not_found')
    return handDto(row)
  }

  return {
    async list(studentId: string): Promise<HandMeasurement[]> {
      await insistOnStudent(studentId)
      return (await hands.ofStudents([studentId])).map(handDto)
    },

    async create(studentId: string, draft: HandlerInput<'hands.create'>['body']): Promise<HandMeasurement> {
      insistOnDay(now, draft.measuredOn, 'measuredOn')
      await insistOnStudent(studentId)
      const id = uuid()
      const userId = signedIn.session.user.id
      await hands.add({ id, studentId, userId, ...draft, recordedAt: now, removedAt: null })
      return read(id)
    },

    async setRemoved(id: string, isRemoved: boolean): Promise<HandMeasurement> {
      if ((await hands.setRemoved(id, isRemoved ? now : null)) !== 1) throw new ProblemError('not_found')
      return read(id)
    },
  }
}
