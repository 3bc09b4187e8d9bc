import { beforeEach, expect, it, vi } from 'vitest'
import type { Instrument, Student } from '#contracts'
import { A_STUDENT, AN_INSTRUMENT, freshStores, signedIn } from '../testing'
import { useStudio } from './studio'

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

beforeEach(() => {
  freshStores()
  signedIn()
})

it('never shows an older list over a newer one', async () => {
  const [studio, asked] = [useStudio(), heldServer()]
  const [first, second] = [studio.loadStudents(), studio.loadStudents()]
  asked[1]!([renamed('newer')])
  await second
  asked[0]!([renamed('older')])
  await first
  expect(studio.students?.map((s) => s.name)).toEqual(['newer'])
})

it('keeps what was saved while a slow list was on its way', async () => {
  const [studio, asked] = [useStudio(), heldServer()]
  studio.students = [A_STUDENT]
  studio.instruments = [AN_INSTRUMENT]
  const [students, instruments] = [studio.loadStudents(), studio.loadInstruments()]
  studio.takeInstrument(labelled('saved'))
  studio.takeStudent({ ...renamed('saved'), instrument: labelled('saved') })
  asked[0]!([A_STUDENT, { ...A_STUDENT, id: 'another', name: 'Another', instrument: AN_INSTRUMENT }])
  asked[1]!([AN_INSTRUMENT])
  await Promise.all([students, instruments])
  expect(studio.students.map((s) => [s.name, s.instrument?.label])).toEqual([
    ['Another', 'saved'],
    ['saved', 'saved'],
  ])
  expect(studio.instruments.map((i) => i.label)).toEqual(['saved'])
})

it('drops one student’s slow answer where something newer was saved', async () => {
  const [studio, asked] = [useStudio(), heldServer()]
  studio.students = [A_STUDENT]
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
  studio.students = [player]
  const held = { ...AN_INSTRUMENT, holder: { studentId: player.id, name: player.name, since: '2026-10-03' } }
  expect(studio.stringingOf(held as Instrument).system.id).toBe('equal')
})
