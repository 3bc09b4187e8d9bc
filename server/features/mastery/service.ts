import { v7 as uuid } from 'uuid'
import { familyOf, hasMasteryItem, type FamilyId, type MasteryKind, type MasteryState } from '#core'
import type { HandlerInput, Mastery } from '#contracts'
import type { MasteryMarkRow } from '../../db/rows'
import type { By } from '../../db/studio-store'
import type { Call } from '../../http/call'
import { fieldProblem, ProblemError } from '../../http/problem-error'
import { studentRepository } from '../students/repository'

const IN_ORDER: [string, string][] = [
  ['recordedAt', 'ASC'],
  ['id', 'ASC'],
]

/** Which patterns and positions a student has, as the teacher said last. */
export function masteryService({ store, signedIn, now }: Pick<Call, 'store' | 'signedIn' | 'now'>) {
  const { masteryMark } = store.models

  async function existingStudent(id: string) {
    const student = await studentRepository(store).byId(id)
    if (!student) throw new ProblemError('not_found')
    return student
  }

  async function current(studentId: string, family: FamilyId): Promise<Mastery[]> {
    const rows = await store.written(masteryMark, { studentId }, { order: IN_ORDER })
    const newest = new Map<string, By<MasteryMarkRow>>(rows.map((row) => [`${row.kind} ${row.item}`, row]))
    return [...newest.values()]
      .map((row) => ({
        kind: row.kind as MasteryKind,
        item: row.item,
        state: row.state as MasteryState,
        by: row.by,
        at: row.recordedAt.toISOString(),
      }))
      .filter(({ kind, item }) => hasMasteryItem(familyOf(family), kind, item))
  }

  return {
    async list(studentId: string): Promise<Mastery[]> {
      const student = await existingStudent(studentId)
      return current(studentId, student.family as FamilyId)
    },

    async mark(studentId: string, { marks }: HandlerInput<'mastery.mark'>['body']): Promise<Mastery[]> {
      const student = await existingStudent(studentId)
      const family = student.family as FamilyId
      marks.forEach(({ kind, item }, index) => {
        if (!hasMasteryItem(familyOf(family), kind, item))
          throw fieldProblem(`marks.${index}.item`, `Choose one of the ${familyOf(family).name}’s ${kind}s.`)
      })
      const userId = signedIn.session.user.id
      await store.insert(
        masteryMark,
        marks.map((mark) => ({ id: uuid(), studentId, userId, ...mark, recordedAt: now })),
      )
      return current(studentId, family)
    },
  }
}
