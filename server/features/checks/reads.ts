import type { Check, CheckSummary, HandlerInput, History, VerdictCounts } from '#contracts'
import type { Call } from '../../http/call'
import { ProblemError } from '../../http/problem-error'
import { studentRepository } from '../students/repository'
import { tapeRepository } from '../tapes/repository'
import { checkDto, checkSummaryDto, pastCheckDto, type CheckFacts } from './dto'
import { isOutdated, rejudged, strungNow } from './rejudge'
import { checkRepository } from './repository'

/** Within how long verdicts are counted, ms: a year of lessons says how strict a tolerance is, and costs the same in the tenth year. */
const COUNTED_MS = 365 * 86_400_000

export function checkReads({ store, now }: Pick<Call, 'store' | 'now'>) {
  const repository = checkRepository(store)

  async function existingStudent(id: string) {
    const student = await studentRepository(store).byId(id)
    if (!student) throw new ProblemError('not_found')
    return student
  }

  /** Checks as they are answered, judged anew where their instruments were measured again. */
  async function told(facts: readonly CheckFacts[]): Promise<Check[]> {
    const strung = await strungNow(
      store,
      facts.map(({ check }) => check.instrumentId),
    )
    return facts.map((one) => checkDto(one, rejudged(strung.get(one.check.instrumentId), one)))
  }

  async function read(id: string): Promise<Check> {
    const facts = await repository.byId(id)
    if (!facts) throw new ProblemError('not_found')
    return (await told([facts]))[0]!
  }

  return {
    existingStudent,
    read,

    async list(studentId: string, page: HandlerInput<'checks.list'>['query']): Promise<Check[]> {
      await existingStudent(studentId)
      return told(await repository.ofStudent(studentId, page))
    },

    /** All checks in a few numbers each, with the instruments and tapes of those days. */
    async history(studentId: string): Promise<History> {
      await existingStudent(studentId)
      const [checks, loans] = await Promise.all([
        repository.past(studentId),
        studentRepository(store).loansOf(studentId),
      ])
      const held = [...new Set(loans.map(({ instrumentId }) => instrumentId))]
      const tapes = await tapeRepository(store).eventsOf(held)
      const strung = await strungNow(
        store,
        checks.map(({ instrumentId }) => instrumentId),
      )
      return {
        checks: checks.map((row) =>
          pastCheckDto(row, isOutdated(strung.get(row.instrumentId), row.stringing)),
        ),
        loans,
        tapes: tapes.flatMap(({ instrumentId, markId, onDate, kind }) =>
          markId === null ? [] : [{ instrumentId, markId, on: onDate, kind }],
        ),
      }
    },

    async counts(): Promise<VerdictCounts> {
      const rows = await repository.counts(new Date(now.getTime() - COUNTED_MS))
      return rows.map(({ accepted, overruled, tooStrict, ...row }) => ({
        ...row,
        accepted: Number(accepted),
        overruled: Number(overruled),
        tooStrict: Number(tooStrict),
      }))
    },

    async latest(studentId: string): Promise<CheckSummary[]> {
      await existingStudent(studentId)
      const latest = new Map<string, CheckSummary>()
      for (const row of await repository.recent(studentId)) {
        const summary = checkSummaryDto(row)
        const exercise = JSON.stringify(summary.exercise)
        if (!latest.has(exercise)) latest.set(exercise, summary)
      }
      return [...latest.values()]
    },

    async track(id: string): Promise<{ track: string }> {
      const bytes = await repository.trackOf(id)
      if (!bytes) throw new ProblemError('not_found')
      return { track: bytes.toString('base64') }
    },
  }
}
