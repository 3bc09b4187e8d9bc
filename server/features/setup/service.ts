import { v7 as uuid } from 'uuid'
import {
  arrangedItems,
  isoDay,
  isSetupItem,
  roundItems,
  standingOf,
  BODY_FIT_LIMITS,
  bodyFitParts,
  familyOf,
  NO_BODY_FIT,
  type BodyFitPart,
  type FamilyId,
} from '#core'
import type { BodyFit, FieldProblem, GateMark, HandlerInput, Pain, SetupRound } from '#contracts'
import type { Call } from '../../http/call'
import { given } from '../../http/given'
import { insistOnDay } from '../../http/days'
import { fieldProblem, ProblemError } from '../../http/problem-error'
import { studentRepository } from '../students/repository'
import { bodyFitDto, gateMarkDto, painDto, roundDto, setupNowOf } from './dto'
import { setupRepository } from './repository'

type RoundDraft = HandlerInput<'setup.create'>['body']

/** What is looked at before a note is judged, pain that was told, how instruments fit, and gates. */
export function setupService({ store, signedIn, now }: Pick<Call, 'store' | 'signedIn' | 'now'>) {
  const repository = setupRepository(store)
  const { rounds, pains, fits, gates } = repository
  const { user, studio } = signedIn.session
  const { timeZone } = studio.settings
  const written = { userId: user.id, recordedAt: now, removedAt: null }

  async function existingStudent(id: string) {
    const student = await studentRepository(store).byId(id)
    if (!student) throw new ProblemError('not_found')
    return student
  }

  async function insistOn<Row>(row: Promise<Row | undefined>): Promise<Row> {
    const found = await row
    if (!found) throw new ProblemError('not_found')
    return found
  }

  /** Two teachers may answer at once: both rounds are kept, and the newer answer to each item stands. */
  async function reckonNow(studentId: string): Promise<void> {
    await repository.setNow(studentId, setupNowOf(await rounds.ofStudent(studentId), timeZone))
  }

  async function setRoundRemoved(id: string, isRemoved: boolean): Promise<SetupRound> {
    const round = await insistOn(rounds.byId(id))
    await repository.lockStudent(round.studentId)
    const removedAt = isRemoved ? now : null
    await rounds.setRemoved(id, removedAt)
    if (round.painId !== null) await pains.change(round.painId, { removedAt })
    await reckonNow(round.studentId)
    return roundDto({ ...round, removedAt })
  }

  async function changePain(id: string, values: Parameters<typeof pains.change>[1]): Promise<Pain> {
    if ((await pains.change(id, values)) !== 1) throw new ProblemError('not_found')
    return painDto(await insistOn(pains.byId(id)))
  }

  return {
    async list(studentId: string): Promise<SetupRound[]> {
      await existingStudent(studentId)
      return (await rounds.ofStudent(studentId)).reverse().map(roundDto)
    },

    /** Kept for the family it was asked of, whatever the student plays by now. */
    async create(studentId: string, draft: RoundDraft): Promise<SetupRound> {
      const toldOn = isoDay(new Date(draft.takenAt), timeZone)
      insistOnDay(now, toldOn, 'takenAt')
      insistOnItems(draft)
      await existingStudent(studentId)
      await repository.lockStudent(studentId)
      const painId = draft.pain && uuid()
      if (draft.pain && painId !== null)
        await pains.add({ id: painId, studentId, toldOn, ...draft.pain, ...NOT_CLEARED, ...written })
      const isAnswered = new Set(draft.answers.map(({ itemId }) => itemId))
      // A round may begin where the last one stopped: what was left out did not stop it.
      const asked = roundItems(draft.family, studio.settings.setup).filter(({ id }) => isAnswered.has(id))
      const row = {
        id: uuid(),
        studentId,
        takenAt: new Date(draft.takenAt),
        family: draft.family,
        answers: draft.answers,
        passed: draft.passed,
        stoppedAt: standingOf(asked, draft.answers, draft.passed).stoppedAt?.id ?? null,
        painId,
        note: draft.note,
        ...written,
      }
      await rounds.add(row)
      await reckonNow(studentId)
      return roundDto({ ...row, studioId: studio.id, by: user.name })
    },

    remove: (id: string) => setRoundRemoved(id, true),
    restore: (id: string) => setRoundRemoved(id, false),

    async painsOf(studentId: string): Promise<Pain[]> {
      await existingStudent(studentId)
      return (await pains.ofStudent(studentId)).map(painDto)
    },

    async tellPain(studentId: string, draft: HandlerInput<'pains.create'>['body']): Promise<Pain> {
      insistOnDay(now, draft.toldOn, 'toldOn')
      await existingStudent(studentId)
      const id = uuid()
      await pains.add({ id, studentId, ...draft, ...NOT_CLEARED, ...written })
      return painDto(await insistOn(pains.byId(id)))
    },

    async clearPain(id: string, { on, note }: HandlerInput<'pains.clear'>['body']): Promise<Pain> {
      insistOnDay(now, on, 'on')
      const { toldOn } = await insistOn(pains.byId(id))
      if (on < toldOn) throw fieldProblem('on', `It was told on ${toldOn}: it cannot be over before.`)
      return changePain(id, { clearedOn: on, clearedNote: note })
    },
    reopenPain: (id: string) => changePain(id, NOT_CLEARED),
    setPainRemoved: (id: string, isRemoved: boolean) => changePain(id, { removedAt: isRemoved ? now : null }),

    async fitsOf(studentId: string): Promise<BodyFit[]> {
      await existingStudent(studentId)
      return (await fits.ofStudent(studentId)).map(bodyFitDto)
    },

    async fit(studentId: string, draft: HandlerInput<'bodyFits.create'>['body']): Promise<BodyFit> {
      insistOnDay(now, draft.fittedOn, 'fittedOn')
      insistOnParts(draft)
      await existingStudent(studentId)
      const id = uuid()
      const { family, fittedOn, note, ...measures } = draft
      const before = (await fits.ofStudent(studentId)).find((one) => one.family === family)
      await fits.add({
        id,
        studentId,
        family,
        fittedOn,
        note: note ?? before?.note ?? '',
        measures: { ...NO_BODY_FIT, ...before?.measures, ...given(measures) },
        ...written,
      })
      return bodyFitDto(await insistOn(fits.byId(id)))
    },

    async setFitRemoved(id: string, isRemoved: boolean): Promise<BodyFit> {
      if ((await fits.setRemoved(id, isRemoved ? now : null)) !== 1) throw new ProblemError('not_found')
      return bodyFitDto(await insistOn(fits.byId(id)))
    },

    async gatesOf(studentId: string): Promise<GateMark[]> {
      await existingStudent(studentId)
      const newest = new Map(
        (await gates.ofStudent(studentId)).map((row) => [`${row.gate} ${row.item}`, gateMarkDto(row)]),
      )
      return [...newest.values()]
    },

    async markGate(studentId: string, draft: HandlerInput<'gates.mark'>['body']): Promise<GateMark[]> {
      await existingStudent(studentId)
      await gates.add({ id: uuid(), studentId, userId: user.id, ...draft, recordedAt: now })
      return this.gatesOf(studentId)
    },
  }
}

const NOT_CLEARED = { clearedOn: null, clearedNote: '' } as const

/** An item of the tool must be one of the family’s; one of the studio’s own may have been taken off since, and says its words. */
function insistOnItems({ family, answers }: RoundDraft): void {
  const known = new Set(arrangedItems(family).map(({ id }) => id))
  const fields: FieldProblem[] = answers.flatMap(({ itemId, question }, index) =>
    known.has(itemId) || (!isSetupItem(itemId) && question)
      ? []
      : [
          {
            path: `answers.${index}.itemId`,
            message: `${itemId} is not asked of a ${familyOf(family).name}.`,
          },
        ],
  )
  if (fields.length > 0) throw new ProblemError('invalid_request', { fields })
}

function insistOnParts(
  draft: { readonly family: FamilyId } & { readonly [part in BodyFitPart]?: number | null | undefined },
) {
  const fields = (Object.keys(BODY_FIT_LIMITS) as BodyFitPart[])
    .filter((part) => draft[part] != null && !bodyFitParts(draft.family).includes(part))
    .map((part) => ({ path: part, message: `This is not measured on a ${familyOf(draft.family).name}.` }))
  if (fields.length > 0) throw new ProblemError('invalid_request', { fields })
}
