import { call } from '../../api/client'
import { noteReadAhead, readAheadFor } from '../../api/from-device'
import { CHECKS_AT_ONCE, CHECKS_BESIDE, LESSONS_AT_ONCE, LIST_AT_ONCE } from '../../stores/reads'
import { useSession } from '../../stores/session'
import { useStudio } from '../../stores/studio'
import { studioDay } from '../../words/shown'

/**
 * Reads once a day what the lessons of the next lesson day ask for, one thing after another, where a service worker keeps it: a
 * rehearsal room may have no network. What does not come is left; whoever opens it with a network has it.
 */
export function useAhead() {
  const studio = useStudio()
  const session = useSession()

  async function readLesson(studentId: string): Promise<void> {
    const params = { studentId }
    const student = await call('students.read', { params })
    for (const query of [{ limit: CHECKS_AT_ONCE }, { limit: CHECKS_BESIDE }, {}])
      await call('checks.list', { params, query })
    for (const name of [
      'checks.latest',
      'mastery.list',
      'setup.list',
      'bodyFits.list',
      'pains.list',
      'gates.list',
      'plans.list',
      'practice.list',
      'hands.list',
    ] as const)
      await call(name, { params })
    if (!student.instrument) return
    const of = { params: { instrumentId: student.instrument.id } }
    await call('instruments.read', of)
    await call('tapeEvents.list', of)
  }

  return {
    async readAhead(): Promise<void> {
      // One that is there and not yet in charge comes to it with the next page.
      if (!('serviceWorker' in navigator) || !navigator.serviceWorker.controller) return
      const today = studioDay(new Date())
      const done = `${session.session?.user.id} ${today}`
      try {
        if ((await readAheadFor()) === done) return
        const { ids } = await studio.nextLessons(new Date(`${today}T12:00:00`).getDay(), {
          limit: LESSONS_AT_ONCE,
        })
        for (const id of ids) await readLesson(id)
        // Both lists as they open.
        const page = { q: '', direction: 'up', offset: 0, limit: LIST_AT_ONCE } as const
        await call('students.list', { query: { ...page, sort: 'name' } })
        await call('instruments.list', { query: { ...page, sort: 'label' } })
        await noteReadAhead(done)
      } catch {
        // The server is away, or somebody has left: another time.
      }
    },
  }
}
