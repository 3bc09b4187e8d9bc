import { ref } from 'vue'
import type { Plan, PracticeSaid, Student } from '#contracts'
import { ApiProblem, call } from '../../api/client'
import { UNDO, useNotices } from '../../stores/notices'
import { count } from '../../words/numbers'
import { shown, studioDay } from '../../words/shown'
import { readPracticeFile, type FileFault, type PracticeFile } from './practice-file'

/** More of one student at once is more than a request takes. */
const SAID_AT_ONCE = 400
const FOUND = 50

/** What would come in of a file, and what of it has been told apart. */
export interface BroughtIn {
  readonly file: Extract<PracticeFile, { readonly ok: true }>
  /** Whoever is called so; undefined of nobody, or of more than one. */
  readonly students: ReadonlyMap<string, Student | undefined>
}

/** Plans and logs out of files: looked at first, then written down, and taken back at once. */
export function useBringIn(after: () => Promise<void>) {
  const notices = useNotices()
  const read = ref<BroughtIn>()
  const failure = ref<Extract<PracticeFile, { readonly ok: false }>>()
  const isSaving = ref(false)

  async function look(text: string): Promise<void> {
    read.value = failure.value = undefined
    const file = readPracticeFile(text, shown.exercises, studioDay())
    if (!file.ok) return void (failure.value = file)
    const names = new Set([...file.entries, ...file.plans].map(({ student }) => student))
    const students = new Map<string, Student | undefined>()
    for (const name of names) {
      const { rows } = await call('students.list', { query: { q: name, limit: FOUND } })
      const called = rows.filter((one) => one.name === name)
      students.set(name, called.length === 1 ? called[0] : undefined)
    }
    read.value = { file, students }
  }

  /** What is there already stays: a day that was said, a week that is given. */
  async function save(): Promise<void> {
    const of = read.value
    if (!of) return
    isSaving.value = true
    const said: { student: Student; entries: PracticeSaid[] }[] = []
    const given: Plan[] = []
    const refused: string[] = []
    try {
      for (const [name, student] of of.students) {
        if (!student) continue
        const params = { studentId: student.id }
        const there = new Set(
          (await call('practice.list', { params })).map(({ on, exerciseId }) => `${on} ${exerciseId}`),
        )
        const own = new Map(
          of.file.entries
            .filter((one) => one.student === name && !there.has(`${one.on} ${one.exerciseId}`))
            .map(
              ({ student: _, ...one }) => [`${one.on} ${one.exerciseId}`, { ...one, isDone: true }] as const,
            ),
        )
        const entries = [...own.values()]
        for (let at = 0; at < entries.length; at += SAID_AT_ONCE) {
          const some = entries.slice(at, at + SAID_AT_ONCE)
          await call('practice.say', { params, body: { entries: some } })
          said.push({ student, entries: some })
        }
        const weeks = new Set((await call('plans.list', { params })).map(({ startsOn }) => startsOn))
        for (const { plan } of of.file.plans.filter((one) => one.student === name)) {
          if (weeks.has(plan.startsOn)) continue
          const instrumentId = plan.instrumentId === student.instrument?.id ? plan.instrumentId : null
          try {
            given.push(await call('plans.give', { params, body: { ...plan, instrumentId, after: null } }))
          } catch (error) {
            // What the server refuses of one leaves the others theirs.
            if (!(error instanceof ApiProblem) || error.isPassing) throw error
            refused.push(`${name}: ${error.message}`)
          }
        }
      }
    } finally {
      isSaving.value = false
      await after()
    }
    read.value = undefined
    const days = said.reduce((sum, { entries }) => sum + entries.length, 0)
    const rest = refused.length > 0 ? ` Not brought in: ${refused.join(' ')}` : ''
    notices.say(`${count(days, 'line')} of the log and ${count(given.length, 'plan')} brought in.${rest}`, {
      label: UNDO,
      run: async () => {
        for (const { student, entries } of said)
          await call('practice.say', {
            params: { studentId: student.id },
            body: { entries: entries.map((one) => ({ ...one, isDone: false })) },
          })
        for (const { id } of given) await call('plans.remove', { params: { planId: id } })
        await after()
      },
    })
  }

  return { read, failure, isSaving, look, save }
}

/** What is wrong with a row, and what to do. */
export function faultWords({ row, code, text }: FileFault): string {
  const of = `Row ${row}: `
  switch (code) {
    case 'student':
      return `${of}nobody is named: write the student’s name.`
    case 'day':
      return `${of}“${text}” is no day: write it as in 2026-11-28.`
    case 'future':
      return `${of}${text} has not come yet.`
    case 'exercise':
      return `${of}the studio has no exercise “${text}”: write its id, as a saved log has it.`
    case 'number':
      return `${of}“${text}”: give whole minutes up to 240 and times up to 1,000.`
    case 'plan':
      return `${of}this is no whole plan: bring in the JSON that was saved.`
  }
}

export function fileFailureWords(failure: Extract<PracticeFile, { readonly ok: false }>): string {
  switch (failure.code) {
    case 'unreadable':
      return 'This file could not be read: save it anew as CSV or JSON.'
    case 'columns':
      return `The column “${failure.missing}” is missing: a log has student, day, exercise, minutes and times.`
    case 'empty':
      return 'There is nothing in this file.'
    case 'too_large':
      return 'This file is longer than five million letters: bring it in in parts.'
  }
}
