import { beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref } from 'vue'
import type { Instrument, Student } from '#contracts'
import { A_STUDENT, AN_INSTRUMENT, fakeServer, freshStores, known, lists, signedIn } from '../testing'
import { useStudio } from './studio'
import { studioStringing } from './stringing'
import { useInstrumentsOfSizes } from './useInstrumentsOfSizes'
import { useList } from './useList'

/** Lets the test answer each question when it wants, in whatever order. */
function heldServer() {
  const asked: ((body: unknown) => void)[] = []
  vi.stubGlobal(
    'fetch',
    () => new Promise((resolve) => asked.push((body) => resolve(new Response(JSON.stringify(body))))),
  )
  return asked
}
const renamed = (name: string): Student => ({ ...A_STUDENT, name })
const labelled = (label: string): Instrument => ({ ...AN_INSTRUMENT, label })
const pageOf = (...rows: unknown[]) => ({ total: rows.length, rows })
const settled = () => new Promise((resolve) => setTimeout(resolve, 0))

beforeEach(() => {
  freshStores()
  signedIn()
})

describe('what was read', () => {
  it('is never overwritten by the answer to an older question', async () => {
    const [studio, asked] = [useStudio(), heldServer()]
    const [first, second] = [studio.findStudents({}), studio.findStudents({})]
    asked[1]!(pageOf(renamed('newer')))
    await second
    asked[0]!(pageOf(renamed('older')))
    await first
    expect(studio.roster.map((s) => s.name)).toEqual(['newer'])
  })

  it('keeps what was saved while a slow list was on its way', async () => {
    const [studio, asked] = [useStudio(), heldServer()]
    known({ students: [A_STUDENT], instruments: [AN_INSTRUMENT] })
    const [students, instruments] = [studio.findStudents({}), studio.findInstruments({})]
    studio.takeInstrument(labelled('saved'))
    studio.takeStudent({ ...renamed('saved'), instrument: labelled('saved') })
    asked[0]!(pageOf(A_STUDENT, { ...A_STUDENT, id: 'another', name: 'Another', instrument: AN_INSTRUMENT }))
    asked[1]!(pageOf(AN_INSTRUMENT))
    await Promise.all([students, instruments])
    expect(studio.roster.map((s) => [s.name, s.instrument?.label])).toEqual([
      ['Another', 'saved'],
      ['saved', 'saved'],
    ])
    expect(studio.cupboard.map((i) => i.label)).toEqual(['saved'])
  })

  it('drops one student’s slow answer where something newer was saved', async () => {
    const [studio, asked] = [useStudio(), heldServer()]
    known({ students: [A_STUDENT] })
    const read = studio.loadStudent(A_STUDENT.id)
    studio.takeStudent(renamed('saved'))
    asked[0]!(renamed('older'))
    expect((await read).name).toBe('saved')
  })

  it('lets the tapes that lie on an instrument govern its tuning system, then its player, then the studio', () => {
    const studio = useStudio()
    const player = { ...A_STUDENT, system: 'equal' }
    const tapeSet = { ...({} as NonNullable<Instrument['tapeSet']>), system: 'just:G' }
    expect(studio.systemOf({ ...AN_INSTRUMENT, tapeSet }, player)).toBe('just:G')
    expect(studio.systemOf(AN_INSTRUMENT, player)).toBe('equal')
    expect(studio.systemOf(AN_INSTRUMENT, A_STUDENT)).toBe('fifths')
    known({ students: [player] })
    const held = { ...AN_INSTRUMENT, holder: { studentId: player.id, name: player.name } }
    expect(studioStringing(held).system.id).toBe('equal')
  })
})

describe('a list read page by page', () => {
  /** Of 120 students, each page when it is asked for. */
  function longRoster() {
    const rows = Array.from({ length: 120 }, (_, i) => ({ ...A_STUDENT, id: `s${i}`, instrument: null }))
    return fakeServer(({ path }) => {
      const offset = Number(new URL(path, 'http://x').searchParams.get('offset'))
      const q = new URL(path, 'http://x').searchParams.get('q')
      const found = q === 'few' ? rows.slice(0, 3) : rows
      return { status: 200, body: { total: found.length, rows: found.slice(offset, offset + 50) } }
    })
  }
  const scoped = <T>(work: () => T) => effectScope().run(work)!

  it('has a place for every row at once, and asks for those in sight, once', async () => {
    const sent = longRoster()
    const list = scoped(() => useList(ref({}), useStudio().findStudents))
    await settled()
    expect([list.total.value, list.ids.value[49], list.ids.value[50]]).toEqual([120, 's49', undefined])
    list.need(40, 110)
    list.need(60, 119)
    await settled()
    expect([list.ids.value.length, list.ids.value[50], list.ids.value[119]]).toEqual([120, 's50', 's119'])
    expect(sent).toHaveLength(3)
  })

  it('begins anew with another search, and drops an answer to the one before', async () => {
    const asked = heldServer()
    const query = ref({ q: 'many' })
    const list = scoped(() => useList(query, useStudio().findStudents))
    query.value = { q: 'few' }
    await nextTick()
    asked[1]!(pageOf(A_STUDENT))
    await settled()
    asked[0]!({ total: 99, rows: [renamed('late')] })
    await settled()
    expect([list.total.value, list.ids.value]).toEqual([1, [A_STUDENT.id]])
  })

  it('of instruments of some sizes reads a few of each, and again when something is saved', async () => {
    const sent = fakeServer(lists({ instruments: [AN_INSTRUMENT] }))
    const query = { family: 'violin', sizeIds: ['1/2', '1/4'], holder: 'none' } as const
    const { rows, more } = scoped(() => useInstrumentsOfSizes(ref(query)))
    expect(rows.value).toBeUndefined()
    await settled()
    expect(rows.value?.map((i) => i.label)).toContain('no. 7')
    expect(more.value).toBe(0)
    useStudio().noteSave()
    await settled()
    expect(sent.map((s) => new URL(s.path, 'http://studio.example').search)).toEqual(
      ['1%2F2', '1%2F4', '1%2F2', '1%2F4'].map(
        (size) => `?family=violin&holder=none&sizeId=${size}&limit=20`,
      ),
    )
  })
})
