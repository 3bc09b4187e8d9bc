import { describe, expect, it } from 'vitest'
import { exerciseBook, type OwnExercise } from '#core'
import { toCsv, toJson } from '../../files/tables'
import { readPracticeFile } from './practice-file'

const TODAY = '2026-12-01'
const BOOK = exerciseBook([
  { id: 'own-rock', families: ['violin'], minutes: 3, fromAge: null, part: 'aim' } as unknown as OwnExercise,
])
const read = (text: string) => readPracticeFile(text, BOOK, TODAY)
const COLUMNS = ['student', 'day', 'exercise', 'minutes', 'times']
const ROWS = [
  ['Zoë “=” Marsh', '2026-11-28', 'shake_out', 5, null],
  ['=Orla', '2026-11-29', 'own-rock', null, 12],
  ['Orla', '2026-11-30', 'open_and_first', null, null],
] as const

describe('a log in a file', () => {
  it('comes back from what is saved here, as a table and as JSON, and from an office’s table with other cells', () => {
    const table = { name: 'practice', columns: COLUMNS, rows: ROWS }
    for (const text of [toCsv(table), toJson(table)]) {
      const file = read(text)
      expect(file).toMatchObject({ ok: true, plans: [], faults: [] })
      expect(
        file.ok && file.entries.map((one) => [one.student, one.on, one.exerciseId, one.minutes, one.times]),
      ).toEqual(ROWS)
    }
    const office = read('Exercise;Day;Student;Room\r\nshake_out;2026-11-28;Orla Venn;4\r\n')
    expect(office).toMatchObject({ ok: true, entries: [{ student: 'Orla Venn', minutes: null }] })
  })

  it('names every row that is wrong, and reads the others', () => {
    const file = read(
      [
        'student,day,exercise,minutes,times',
        'Orla,2026-11-28,shake_out,5,',
        ',2026-11-28,shake_out,5,',
        'Orla,28 Nov,shake_out,5,',
        'Orla,2026-02-30,shake_out,5,',
        'Orla,2026-12-02,shake_out,5,',
        'Orla,2026-11-28,juggling,5,',
        'Orla,2026-11-28,own-gone,5,',
        'Orla,2026-11-28,shake_out,five,',
        'Orla,2026-11-28,shake_out,500,',
      ].join('\n'),
    )
    expect(file.ok && file.entries).toHaveLength(1)
    expect(file.ok && file.faults.map(({ row, code }) => [row, code])).toEqual([
      [3, 'student'],
      [4, 'day'],
      [5, 'day'],
      [6, 'future'],
      [7, 'exercise'],
      [8, 'exercise'],
      [9, 'number'],
      [10, 'number'],
    ])
  })

  it('is refused whole where it is none', () => {
    expect(read('')).toEqual({ ok: false, code: 'empty' })
    expect(read('\uFEFFstudent,day,exercise')).toEqual({ ok: false, code: 'empty' })
    expect(read('student,exercise\nOrla,shake_out')).toEqual({ ok: false, code: 'columns', missing: 'day' })
    expect(read('[{"student":')).toEqual({ ok: false, code: 'unreadable' })
    expect(read('[1, 2]')).toEqual({ ok: false, code: 'unreadable' })
    expect(read('student,day,exercise\n"Orla,2026-11-28,shake_out')).toEqual({
      ok: false,
      code: 'unreadable',
    })
    expect(read('x'.repeat(5_000_001))).toEqual({ ok: false, code: 'too_large' })
  })
})

describe('plans in a file', () => {
  const card = {
    exerciseId: 'shake_out',
    on: '2026-11-28',
    minutes: 5,
    reason: { code: 'asked' },
    isFixed: false,
  }
  const plan = {
    startsOn: '2026-11-28',
    family: 'violin',
    minutesADay: 15,
    weekdays: [6],
    cards: [card],
    instrumentId: null,
  }

  it('come back by the name of whose they are, without what only the old file knew', () => {
    const saved = [
      { student: 'Orla', id: 'x', by: 'Hester', at: 'then', studentId: 'y', ...plan, pieces: ['Low Tide'] },
    ]
    expect(read(JSON.stringify(saved))).toEqual({
      ok: true,
      entries: [],
      plans: [{ student: 'Orla', plan: { ...plan, pieces: ['Low Tide'] } }],
      faults: [],
    })
  })

  it('are refused one by one', () => {
    const file = read(
      JSON.stringify([
        { student: 'Orla', ...plan },
        { student: 'Orla', ...plan, startsOn: 'soon' },
        { student: 'Orla', ...plan, cards: [{ ...card, exerciseId: 'juggling' }] },
        { ...plan },
      ]),
    )
    expect(file.ok && [file.plans.length, file.faults.map(({ row, code }) => `${row} ${code}`)]).toEqual([
      1,
      ['2 plan', '3 exercise', '4 student'],
    ])
  })
})
