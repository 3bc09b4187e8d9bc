import { computed, onScopeDispose, type Ref } from 'vue'
import { checkForPlan, familyOf, faultsOf, type PlanFacts, type Schools } from '#core'
import type { Check, GateMark, Mastery, PracticeEntry, Student } from '#contracts'
import { call } from '../../api/client'
import { useLoaded } from '../../api/useLoaded'
import { fileGates } from '../../stores/file-gates'
import { useMasteryOf } from '../../stores/mastery'
import { useOutbox } from '../../stores/outbox'
import { CHECKS_AT_ONCE } from '../../stores/reads'
import { useSettings } from '../../stores/settings'
import { useStudio } from '../../stores/studio'
import { shown, studioDay } from '../../words/shown'

/** What a file says by itself; pieces and exercises are added by the teacher. */
export type FileFacts = Omit<PlanFacts, 'pieces' | 'asked'>

/** What of a student is read for a plan. */
export interface PlanFile {
  readonly checks: readonly Check[]
  readonly gateMarks: readonly GateMark[]
  readonly practice: readonly PracticeEntry[]
  readonly mastery: readonly Mastery[]
}

/** Everything at once, of somebody whose file is not open. */
export async function readPlanFile(studentId: string): Promise<PlanFile> {
  const of = { params: { studentId } }
  const [checks, gateMarks, practice, mastery] = await Promise.all([
    call('checks.list', { ...of, query: { limit: CHECKS_AT_ONCE } }),
    call('gates.list', of),
    call('practice.list', of),
    call('mastery.list', of),
  ])
  return { checks, gateMarks, practice, mastery }
}

/** What a student’s file says to a plan. */
export function factsOf(
  of: Student,
  { checks, gateMarks, practice, mastery }: PlanFile,
  taught: { readonly schools: Schools; readonly systemId: string },
): FileFacts {
  const standings = of.setup?.standings ?? []
  const gates = fileGates(of, {
    systemId: taught.systemId,
    setup: standings,
    checks,
    mastery,
    said: gateMarks,
  })
  return {
    familyId: of.family,
    strings: (of.instrument?.tuning ?? familyOf(of.family).tuning).length,
    age: of.birthYear === null ? undefined : Number(studioDay().slice(0, 4)) - of.birthYear,
    schools: taught.schools,
    isBeginner: of.level === null || of.level === 'beginner',
    pains: of.pains.length,
    closedGates: gates.filter(({ standsOpen }) => !standsOpen).map(({ id }) => id),
    ...faultsOf(checks.map((check) => checkForPlan(check, studioDay(new Date(check.takenAt))))),
    setup: standings,
    learning: mastery
      .filter(({ kind, state }) => kind === 'pattern' && state === 'learning')
      .map(({ item }) => item),
    own: shown.exercises.all,
    log: practice.map(({ exerciseId, on }) => ({ exerciseId, on })),
  }
}

/** What the open file of a student says to a plan; undefined before it is read. */
export function usePlanFacts(student: Ref<Student | undefined>) {
  const studio = useStudio()
  const settings = useSettings()
  const outbox = useOutbox()
  const { marks } = useMasteryOf(student)
  const id = () => student.value?.id
  const checks = useLoaded(id, (studentId) =>
    call('checks.list', { params: { studentId }, query: { limit: CHECKS_AT_ONCE } }),
  )
  const gateMarks = useLoaded(id, (studentId) => call('gates.list', { params: { studentId } }))
  const plans = useLoaded(id, (studentId) => call('plans.list', { params: { studentId } }))
  const practice = useLoaded(id, (studentId) => call('practice.list', { params: { studentId } }))
  onScopeDispose(
    outbox.onArrival(() => void Promise.all([checks.reload(), plans.reload(), practice.reload()])),
  )

  const facts = computed<FileFacts | undefined>(() => {
    const of = student.value
    if (!of || !checks.data.value || !gateMarks.data.value || !practice.data.value) return undefined
    const file = {
      checks: checks.data.value,
      gateMarks: gateMarks.data.value,
      practice: practice.data.value,
      mastery: marks.value,
    }
    const systemId = studio.systemOf(of.instrument ?? undefined, of)
    return factsOf(of, file, { schools: settings.schoolsOf(of), systemId })
  })

  return { facts, plans, practice }
}
