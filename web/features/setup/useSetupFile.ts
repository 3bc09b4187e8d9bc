import { computed, onScopeDispose, watch, type Ref } from 'vue'
import {
  fitOfInstrument,
  schoolConflicts,
  schoolOf,
  familyOf,
  type SchoolQuestion,
  type SomeSchools,
} from '#core'
import type { BodyFit, BodyFitDraft, ClientInput, GateMarkDraft, Pain, SetupRound, Student } from '#contracts'
import { call } from '../../api/client'
import { onNewest } from '../../api/onNewest'
import { useLoaded } from '../../api/useLoaded'
import { fileGates, type ShownGate } from '../../stores/file-gates'
import { useMasteryOf } from '../../stores/mastery'
import { UNDO, useNotices } from '../../stores/notices'
import { useOutbox } from '../../stores/outbox'
import { useSession } from '../../stores/session'
import { useSettings } from '../../stores/settings'
import { useStudio } from '../../stores/studio'
import { studioStringing } from '../../stores/stringing'

/** What the file knows of a student’s setup: rounds, fits, gates and schools, and what can be done with them. */
export function useSetupFile(studentId: Ref<string>, student: Ref<Student | undefined>) {
  const studio = useStudio()
  const session = useSession()
  const settings = useSettings()
  const outbox = useOutbox()
  const notices = useNotices()
  const { marks } = useMasteryOf(student)
  const id = () => studentId.value
  const params = () => ({ studentId: studentId.value })
  const name = () => student.value?.name ?? 'a student'
  const rounds = useLoaded(id, (of) => call('setup.list', { params: { studentId: of } }))
  const fits = useLoaded(id, (of) => call('bodyFits.list', { params: { studentId: of } }))
  const pains = useLoaded(id, (of) => call('pains.list', { params: { studentId: of } }))
  const gateMarks = useLoaded(id, (of) => call('gates.list', { params: { studentId: of } }))
  const checks = useLoaded(id, (of) => call('checks.list', { params: { studentId: of }, query: {} }))
  onScopeDispose(
    outbox.onArrival(() => void Promise.all([rounds.reload(), fits.reload(), gateMarks.reload()])),
  )

  const reloadPains = () => Promise.all([pains.reload(), studio.loadStudent(studentId.value)])
  // Cleared above the record, it is told here too.
  watch(
    () => student.value?.pains.map((pain) => pain.id).join(),
    () => void pains.reload(),
  )

  const systemId = computed(() => studio.systemOf(student.value?.instrument ?? undefined, student.value))
  const stringing = computed(() => {
    const instrument = student.value?.instrument
    return instrument?.measurement ? studioStringing(instrument, systemId.value) : undefined
  })

  const gates = computed<ShownGate[]>(() => {
    const of = student.value
    if (!of || !rounds.data.value || !checks.data.value || !gateMarks.data.value) return []
    const said = gateMarks.data.value
    const answered = new Map(
      [...rounds.data.value].reverse().flatMap(({ answers }) => answers.map((a) => [a.itemId, a] as const)),
    )
    return fileGates(of, {
      systemId: systemId.value,
      setup: [...answered.values()],
      checks: checks.data.value,
      mastery: marks.value,
      said,
    })
  })

  const conflicts = computed(() => {
    const of = student.value
    if (!of) return []
    const fit = stringing.value && of.hand ? fitOfInstrument(stringing.value, of.hand) : undefined
    const own = of.tapeSchoolId === null ? undefined : schoolOf(familyOf(of.family), of.tapeSchoolId)
    return schoolConflicts(of.family, settings.schoolsOf(of), {
      fit: fit?.fit,
      fourFingerFit: fit?.frames.find(({ frame }) => frame.id === 'four_finger')?.fit,
      tapeCount: own?.marks.length,
      isTunedByRing: (of.system ?? session.session?.studio.system) === 'fifths',
    })
  })

  return {
    rounds: rounds.data,
    fits: fits.data,
    pains: pains.data,
    gates,
    conflicts,
    isKnown: computed(() => rounds.data.value !== undefined),

    async removeRound(round: SetupRound) {
      const of = { params: { roundId: round.id } }
      const again = () => Promise.all([rounds.reload(), studio.loadStudent(studentId.value)])
      await call('setup.remove', of)
      await again()
      notices.say('The round is out of the file.', {
        label: UNDO,
        run: async () => {
          await call('setup.restore', of)
          await again()
        },
      })
    },

    async markPain(body: ClientInput<'pains.create'>['body']) {
      await outbox.send('pains.create', { params: params(), body }, { what: `the pain of ${name()}` })
      await reloadPains()
    },

    /** Told by mistake: it is no part of the file, unless that is taken back. */
    async removePain(pain: Pain) {
      const of = { params: { painId: pain.id } }
      await call('pains.remove', of)
      await reloadPains()
      notices.say(`Taken back: ${pain.place}.`, {
        label: UNDO,
        run: async () => {
          await call('pains.restore', of)
          await reloadPains()
        },
      })
    },

    async keepFit(body: BodyFitDraft) {
      await outbox.send(
        'bodyFits.create',
        { params: params(), body },
        { what: `how the instrument fits ${name()}` },
      )
      await fits.reload()
      notices.say('The fit is in the file.')
    },

    async removeFit(fit: BodyFit) {
      const of = { params: { fitId: fit.id } }
      await call('bodyFits.remove', of)
      await fits.reload()
      notices.say('The fit is out of the file.', {
        label: UNDO,
        run: async () => {
          await call('bodyFits.restore', of)
          await fits.reload()
        },
      })
    },

    async sayOfGate(body: GateMarkDraft) {
      await outbox.send('gates.mark', { params: params(), body }, { what: `a gate of ${name()}` })
      await gateMarks.reload()
    },

    /** Another school for one question, or the studio's again; what else somebody changed in the file stays. */
    async chooseSchool(question: SchoolQuestion, choice: string | undefined) {
      if (!student.value) return
      const saved = await onNewest(student.value, (now) => {
        const { [question]: _, ...others } = now.schools
        const schools: SomeSchools = choice === undefined ? others : { ...others, [question]: choice }
        return call('students.update', { params: params(), body: { version: now.version, schools } })
      })
      studio.takeStudent(saved)
    },
  }
}

export type SetupFile = ReturnType<typeof useSetupFile>
