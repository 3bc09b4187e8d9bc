import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Component } from 'vue'
import {
  chartTapes,
  FIRST_POSITION,
  firstPositionWidthMm,
  frameOnString,
  marksOfSchool,
  note,
  placeOfNote,
  placeOfRatio,
  planTapes,
  schoolOf,
  stringingOfInstrument,
  type Stringing,
} from '#core'
import type { Instrument } from '#contracts'
import { chartOf, marksWithoutPlace } from '../features/instruments/tape-chart'
import { mounted, type Mounted } from '../mounting'
import { sheetOf } from '../paper/sheet'
import { useLesson } from '../stores/lesson'
import {
  known,
  lists,
  A_FIND,
  A_HAND,
  A_STUDENT,
  AN_INSTRUMENT,
  fakeServer,
  freshStores,
  signedIn,
  until,
} from '../testing'
import { mm } from '../words/numbers'
import CheckPage from './CheckPage.vue'
import ComparePage from './ComparePage.vue'
import FramePage from './FramePage.vue'
import PatternsPage from './PatternsPage.vue'
import TapesPage from './TapesPage.vue'

/** A half-size whose strings are of unequal length, stand high, and were corrected by a ring. */
const ODD: Instrument = {
  ...AN_INSTRUMENT,
  measurement: { ...AN_INSTRUMENT.measurement!, stringLengthsMm: [287, 285.4, 283.8, 282.2] },
  pressing: { mode: 'measured', nutHeightMm: 0.6, endHeightMm: 5.5, material: 'steel' },
  ringFinds: [{ ...A_FIND, placeMm: 32.6, isTrusted: true }],
  holder: { studentId: A_STUDENT.id, name: A_STUDENT.name },
}

let page: Mounted | undefined
beforeEach(() => {
  sessionStorage.clear()
  localStorage.clear()
  freshStores()
  signedIn()
  fakeServer(lists({ instruments: [ODD] }))
  vi.stubGlobal('requestAnimationFrame', (run: FrameRequestCallback) => setTimeout(() => run(0), 0))
})
afterEach(() => page?.wrapper.unmount())

/** What a room says with a student in the lesson who plays this instrument. */
async function roomOf(room: Component, system: string | null = null): Promise<Mounted> {
  known({ students: [{ ...A_STUDENT, instrument: ODD, system, hand: A_HAND }] })
  known({ instruments: [ODD] })
  useLesson().begin(A_STUDENT.id)
  page = await mounted(room)
  await flushPromises()
  return page
}
/** The pattern of D major on the A string, as Patterns tells it. */
async function patternOnA(system: string | null): Promise<string> {
  const { press, text } = await roomOf(PatternsPage, system)
  await until(() => expect(document.querySelectorAll('[role="grid"]')).toHaveLength(2))
  await press('ArrowRight')
  await until(() => expect(text()).toContain('A string'))
  return text()
}
const marksOn = (stringing: Stringing) =>
  chartTapes(
    stringing,
    planTapes(stringing, marksOfSchool(stringing.family, schoolOf(stringing.family, 'first_and_third')!)),
  )

describe('an instrument that is uneven, pressed and rung has the same places', () => {
  const stringing = stringingOfInstrument(ODD, 'fifths')
  const tapes = marksOn(stringing).map((mark) => mm(mark.middleMm))
  const onA = ['B4', 'C♯5', 'D5', 'E5'].map((name) => mm(placeOfNote(stringing, 2, note(name))))

  it('which are not those of an ideal string', () => {
    // a ninth and a quarter of the mean length (Helmholtz's whole-number places)
    expect(tapes).not.toEqual([9 / 8, 4 / 3].map((ratio) => mm(placeOfRatio(284.6, ratio))))
    expect(onA[0]).not.toBe(mm(placeOfRatio(283.8, 9 / 8)))
  })

  it('on the bench', async () => {
    const { text } = await roomOf(TapesPage)
    for (const place of tapes) expect(text()).toContain(place)
  })

  it('on a strip of the cupboard', () => {
    const facts = { kind: 'violin ½', stringing, marks: chartOf(ODD, stringing), withoutPlace: [] }
    const sheet = sheetOf(facts)
    expect(sheet.marks.map((mark) => mm(mark.middleMm))).toEqual(tapes)
    expect(sheet.subtitle).toContain('string by string · with pressing · corrected by 1 ring')
  })

  it('in the comparison of sizes', async () => {
    const { text, router } = await roomOf(ComparePage)
    await router.replace({ query: { from: ODD.id, to: 'violin 3/4' } })
    await flushPromises()
    for (const place of tapes) expect(text()).toContain(place)
  })

  it('in Check, where each landing is judged', async () => {
    const { text } = await roomOf(CheckPage)
    onA.forEach((place, i) => expect(text()).toMatch(new RegExp(`${i + 1} [A-G]♯? ?${place}`)))
  })

  it('in Patterns, under each finger', async () => {
    const text = await patternOnA(null)
    for (const place of onA) expect(text).toContain(place)
  })

  it('and the frame that follows from them', async () => {
    const { text } = await roomOf(FramePage)
    const [frame] = stringing.family.frames
    // First position on the D string, and on the string where it is widest: what a hand is judged against.
    expect(text()).toContain(mm(frameOnString(stringing, 1, FIRST_POSITION, frame!)))
    expect(text()).toContain(`${mm(firstPositionWidthMm(stringing, frame!))}◐ Reach back with 1`)
  })
})

describe('a student’s own tuning system', () => {
  it('moves the same places in every room', async () => {
    const equal = stringingOfInstrument(ODD, 'equal')
    const third = mm(placeOfNote(equal, 2, note('C♯5')))
    expect(third).not.toBe(mm(placeOfNote(stringingOfInstrument(ODD, 'fifths'), 2, note('C♯5'))))
    expect((await roomOf(CheckPage, 'equal')).text()).toContain(`2 C♯${third}`)
    page!.wrapper.unmount()
    expect(await patternOnA('equal')).toContain(third)
  })
})

/** An eighth-size in steel, 2.6 mm over the board at the nut: close to it nothing sounds low enough. */
const HIGH: Instrument = {
  ...AN_INSTRUMENT,
  sizeId: '1/8',
  measurement: { ...AN_INSTRUMENT.measurement!, lengthMm: 227 },
  pressing: { mode: 'measured', nutHeightMm: 2.6, endHeightMm: 4, material: 'steel' },
}

describe('a note that has no place', () => {
  it('is told in the check and in Patterns, where fingers are shown', async () => {
    for (const room of [CheckPage, PatternsPage]) {
      known({ students: [{ ...A_STUDENT, instrument: HIGH, hand: A_HAND }] })
      useLesson().begin(A_STUDENT.id)
      page = await mounted(room)
      await until(() => expect(page!.text()).toMatch(/ha(s|ve) no place here.*A luthier lowers the nut/))
      page.wrapper.unmount()
    }
  })

  it('is told on the bench in place of its tape, and on the strip', async () => {
    const stringing = stringingOfInstrument(HIGH, 'fifths')
    const withoutPlace = marksWithoutPlace(HIGH, stringing)
    expect(withoutPlace.map((mark) => mark.finger)).toEqual([1])
    const marks = chartOf(HIGH, stringing)
    expect(marks.map((mark) => mark.finger)).toEqual([3])
    const { subtitle } = sheetOf({ kind: 'violin ⅛', stringing, marks, withoutPlace })
    expect(subtitle).toContain('no place for 1st finger')
    known({ students: [{ ...A_STUDENT, instrument: HIGH }] })
    useLesson().begin(A_STUDENT.id)
    page = await mounted(TapesPage)
    await until(() => expect(page!.text()).toContain('1st finger has no place here'))
  })
})
