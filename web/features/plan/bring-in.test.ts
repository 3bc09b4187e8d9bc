import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Plan, PracticeSaid } from '#contracts'
import { useNotices } from '../../stores/notices'
import { A_STUDENT, fakeServer, freshStores, signedIn, type Sent } from '../../testing'
import { useBringIn } from './useBringIn'

const DAY = '2026-11-28'
const REASON = { code: 'asked' }
const CARD = { exerciseId: 'shake_out', on: DAY, minutes: 5, reason: REASON, isFixed: false }
const plan = (student: string, startsOn: string, more: object = {}) => ({
  ...{ student, startsOn, family: 'violin', minutesADay: 15, weekdays: [6], cards: [CARD], pieces: [] },
  ...{ instrumentId: 'somewhere else', id: 'old', by: 'Somebody', at: 'then', ...more },
})
const line = (student: string, day: string) => ({
  student,
  day,
  exercise: 'shake_out',
  minutes: 5,
  times: null,
})

describe('a file that is brought in', () => {
  let sent: Sent[]
  const twins = ['one', 'two'].map((id) => ({ ...A_STUDENT, id, name: 'Ann Twin' }))
  const after = vi.fn(() => Promise.resolve())

  beforeEach(() => {
    freshStores()
    signedIn()
    after.mockClear()
    sent = fakeServer(({ method, path, body }) => {
      if (path.includes('/students?')) {
        const all = [
          A_STUDENT,
          { ...A_STUDENT, id: 'other', name: `${A_STUDENT.name} the Younger` },
          ...twins,
        ]
        const q = new URL(path, 'http://x').searchParams.get('q')!
        return {
          status: 200,
          body: { total: 0, rows: all.filter(({ name }) => name.includes(q)) },
        }
      }
      if (method === 'DELETE') return { status: 200, body: null }
      if (path.endsWith('/practice'))
        return { status: 200, body: method === 'GET' ? [{ on: '2026-11-27', exerciseId: 'shake_out' }] : [] }
      if (method === 'GET') return { status: 200, body: [{ startsOn: '2026-11-21' }] }
      const { startsOn } = body as Plan
      const refusal = {
        code: 'validation_failed',
        status: 422,
        title: 'Refused',
        detail: 'Plan the week anew.',
      }
      return startsOn === '2026-11-14'
        ? { status: 422, body: refusal }
        : { status: 200, body: { id: `new ${startsOn}` } }
    })
  })
  const posted = (what: string) => sent.filter(({ method, path }) => method === 'POST' && path.endsWith(what))
  const said = () => posted('/practice').flatMap(({ body }) => (body as { entries: PracticeSaid[] }).entries)

  it('is written down for whoever is called exactly so, and leaves what is there', async () => {
    const { read, look, save } = useBringIn(after)
    const { name } = A_STUDENT
    await look(
      JSON.stringify([line(name, DAY), line(name, '2026-11-27'), line(name, DAY), line('Ann Twin', DAY)]),
    )
    expect([...read.value!.students].map(([who, student]) => [who, student?.id])).toEqual([
      [name, A_STUDENT.id],
      ['Ann Twin', undefined],
    ])
    expect(posted('/practice')).toEqual([])
    await save()
    expect(said()).toEqual([{ on: DAY, exerciseId: 'shake_out', minutes: 5, times: null, isDone: true }])
    expect(after).toHaveBeenCalledOnce()
  })

  it('gives the weeks that were not given, each by itself, and is taken back whole', async () => {
    const { look, save } = useBringIn(after)
    const { name } = A_STUDENT
    const file = [plan(name, '2026-11-21'), plan(name, '2026-11-14'), plan(name, DAY), plan('Nobody', DAY)]
    await look(JSON.stringify([...file, line(name, DAY)]))
    await save()
    expect(posted('/plans').map(({ body }) => body)).toMatchObject([
      { startsOn: '2026-11-14' },
      // An instrument that the student does not have is not said.
      { startsOn: DAY, instrumentId: null, after: null, cards: [CARD] },
    ])
    const notice = useNotices().notices.at(-1)!
    expect(notice.text).toContain('1 line of the log and 1 plan brought in.')
    expect(notice.text).toContain(`Not brought in: ${name}: Plan the week anew.`)
    await notice.action!.run()
    expect(said().at(-1)).toMatchObject({ on: DAY, isDone: false })
    expect(sent.filter(({ method }) => method === 'DELETE').map(({ path }) => path)).toEqual([
      expect.stringContaining(`/plans/${encodeURIComponent(`new ${DAY}`)}`),
    ])
  })
})
