import { computed, onScopeDispose, type Ref } from 'vue'
import { checkForPlan, faultsOf, type PlanFacts } from '#core'
import type { Student } from '#contracts'
import { call } from '../../api/client'
import { useLoaded } from '../../api/useLoaded'
import { fileGates } from '../../stores/file-gates'
import { useMasteryOf } from '../../stores/mastery'
import { useOutbox } from '../../stores/outbox'
import { useSettings } from '../../stores/settings'
import { useStudio } from '../../stores/studio'
import { studioDay } from '../../words/shown'

/** About a school year of lessons: what is older says nothing of this week. */
const CHECKS_READ = 40

/** What the file of a student says to a plan; undefined before it is read. */
export function usePlanFacts(student: Ref<Student | undefined>) {
  const studio = useStudio()
  const settings = useSettings()
  const outbox = useOutbox()
  const { marks } = useMasteryOf(student)
  const id = () => student.value?.id
  const checks = useLoaded(id, (studentId) =>
    call('checks.list', { params: { studentId }, query: { limit: CHECKS_READ } }),
  )
  const gateMarks = useLoaded(id, (studentId) => call('gates.list', { params: { studentId } }))
  const plans = useLoaded(id, (studentId) => call('plans.list', { params: { studentId } }))
  const practice = useLoaded(id, (studentId) => call('practice.list', { params: { studentId } }))
  onScopeDispose(
    outbox.onArrival(() => void Promise.all([checks.reload(), plans.reload(), practice.reload()])),
  )

  const facts = computed<Omit<PlanFacts, 'pieces' | 'asked'> | undefined>(() => {
    const of = student.value
    if (!of || !checks.data.value || !gateMarks.data.value || !practice.data.value) return undefined
    const standings = of.setup?.standings ?? []
    const gates = fileGates(of, {
      systemId: studio.systemOf(of.instrument ?? undefined, of),
      setup: standings,
      checks: checks.data.value,
      mastery: marks.value,
      said: gateMarks.data.value,
    })
    return {
      familyId: of.family,
      strings: of.instrument?.tuning.length ?? 4,
      age: of.birthYear === null ? undefined : Number(studioDay().slice(0, 4)) - of.birthYear,
      schools: settings.schoolsOf(of),
      pains: of.pains.length,
      closedGates: gates.filter(({ standsOpen }) => !standsOpen).map((gate) => gate.id),
      ...faultsOf(checks.data.value.map((check) => checkForPlan(check, studioDay(new Date(check.takenAt))))),
      setup: standings,
      learning: marks.value
        .filter(({ kind, state }) => kind === 'pattern' && state === 'learning')
        .map(({ item }) => item),
      log: practice.data.value.map(({ exerciseId, on }) => ({ exerciseId, on })),
    }
  })

  return { facts, plans, practice, checks: checks.data }
}
