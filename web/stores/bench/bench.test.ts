import { beforeEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import { note, placeOfNote } from '#core'
import type { Instrument, Student } from '#contracts'
import { known, A_FIND, A_STUDENT, AN_INSTRUMENT, fakeServer, freshStores, signedIn } from '../../testing'
import { useBench } from './bench'
import { useLesson } from '../lesson'
import { useStudio } from '../studio'
import { studioStringing } from '../stringing'

const ANOTHER: Instrument = {
  ...AN_INSTRUMENT,
  id: '01900000-0000-7000-8000-000000000014',
  label: 'no. 14',
  family: 'cello',
  sizeId: '3/4',
  tuning: ['C2', 'G2', 'D3', 'A3'],
  measurement: { ...AN_INSTRUMENT.measurement!, lengthMm: 618 },
}

function lesson(student = A_STUDENT) {
  fakeServer({ status: 200, body: [] })
  known({ instruments: [AN_INSTRUMENT, ANOTHER], students: [student] })
  useLesson().begin(student.id)
  return useBench()
}
/** Where the D string of the bench has its E. */
const placeOfE = () => placeOfNote(useBench().stringing, 1, note('E4'))

beforeEach(() => {
  sessionStorage.clear()
  freshStores()
})

describe('what lies on the bench', () => {
  it('is the student’s instrument, then one from the cupboard, then the student’s again when the lesson goes on', async () => {
    const store = lesson()
    expect([store.setup.lengthText, store.student?.name]).toEqual(['284.5', 'Orla Venn'])
    await store.choose(ANOTHER.id)
    await nextTick()
    expect([store.setup.familyId, store.setup.lengthText, store.student]).toEqual(['cello', '618', undefined])
    useLesson().begin(A_STUDENT.id)
    await nextTick()
    expect([store.setup.familyId, store.setup.lengthText]).toEqual(['violin', '284.5'])
  })

  it('is laid anew when the instrument changes, and not when its row is saved', async () => {
    const store = lesson()
    store.setup.lengthText = '286'
    useStudio().takeInstrument({ ...AN_INSTRUMENT, version: 2, sizeId: '3/4' })
    await nextTick()
    expect([store.setup.lengthText, store.setup.sizeId]).toEqual(['286', '3/4'])
    known({
      students: [{ ...A_STUDENT, instrument: { ...AN_INSTRUMENT, id: ANOTHER.id, measurement: null } }],
    })
    await nextTick()
    expect(store.setup.lengthText).toBe('')
  })

  it('stays over a reload, typed words and loose finds included', async () => {
    fakeServer({ status: 200, body: [] })
    const before = useBench()
    before.setup.lengthText = '327.5'
    await before.addFind('D4', 'E4', 37)
    await nextTick()
    freshStores()
    const after = useBench()
    expect(after.setup.lengthText).toBe('327.5')
    expect(after.finds.map((find) => find.placeMm)).toEqual([37])
  })

  it('stays over a reload with somebody in the lesson, though their name comes later than the page', async () => {
    lesson().setup.lengthText = '286.5'
    await nextTick()
    freshStores()
    fakeServer({ status: 200, body: [] })
    const after = useBench()
    expect(after.instrument).toBeUndefined()
    known({ students: [A_STUDENT] })
    await nextTick()
    expect([after.instrument?.label, after.setup.lengthText]).toEqual(['no. 7', '286.5'])
  })
})

describe('a student’s own school and tuning system', () => {
  const own: Student = { ...A_STUDENT, tapeSchoolId: 'every', system: 'equal' }
  const unlent: Student = { ...own, instrument: null, family: 'cello', tapeSchoolId: 'first_third_fourth' }

  it('are laid out once: what the teacher changes after that stays', async () => {
    const store = lesson(own)
    expect([store.setup.schoolId, store.setup.systemId]).toEqual(['every', 'equal'])
    store.setup.schoolId = 'first'
    useStudio().takeStudent({ ...own, version: 4, note: 'saved meanwhile' })
    await nextTick()
    expect(store.setup.schoolId).toBe('first')
  })

  it('are the studio’s own system on a bench where nothing was laid out yet', () => {
    fakeServer({ status: 200, body: [] })
    signedIn('hester', 'just:G')
    const store = useBench()
    expect(store.setup.systemId).toBe('just:G')
    store.setup.systemId = 'equal'
    store.chooseFamily('cello')
    expect(store.setup).toMatchObject({ familyId: 'cello', systemId: 'equal' })
  })

  it('hold before there is an instrument, of whatever family', () => {
    const store = lesson(unlent)
    expect(store.setup).toMatchObject({
      familyId: 'cello',
      schoolId: 'first_third_fourth',
      systemId: 'equal',
    })
  })

  it('give way to the tapes that lie on the instrument, where it comes to the system', () => {
    const tapeSet = { schoolId: 'first', system: 'just:G', tapeWidthMm: 2 } as Instrument['tapeSet']
    const store = lesson({ ...own, instrument: { ...AN_INSTRUMENT, tapeSet } })
    expect([store.setup.schoolId, store.setup.systemId]).toEqual(['every', 'just:G'])
  })
})

describe('places found by ring', () => {
  it('come with the instrument, and count no more once the server says that its bridge was changed', async () => {
    const store = lesson({ ...A_STUDENT, instrument: { ...AN_INSTRUMENT, ringFinds: [A_FIND] } })
    const rung = placeOfE()
    expect([store.finds.length, store.stringing.calibration === undefined]).toEqual([1, false])
    useStudio().takeInstrument({ ...AN_INSTRUMENT, version: 2, bridgeChangedOn: '2026-11-14', ringFinds: [] })
    await nextTick()
    expect([store.finds.length, store.stringing.calibration]).toEqual([0, undefined])
    expect(placeOfE()).not.toBe(rung)
  })

  it('are kept with the instrument, and move its places in every room at once', async () => {
    const store = lesson()
    const before = placeOfE()
    const sent = fakeServer({ status: 201, body: A_FIND })
    await store.addFind('D4', 'E4', 32.4)
    expect(sent[0]).toMatchObject({ body: { string: 'D4', note: 'E4', system: 'fifths', placeMm: 32.4 } })
    const inRooms = studioStringing(useStudio().student(A_STUDENT.id)!.instrument!)
    expect(placeOfNote(inRooms, 1, note('E4'))).toBe(placeOfE())
    expect(placeOfE()).toBeGreaterThan(before)
  })

  it('are taken out and put back, and the places with them', async () => {
    fakeServer({ status: 200, body: [] })
    const store = useBench()
    store.setup.lengthText = '328'
    await store.addFind('D4', 'E4', 37)
    const moved = placeOfE()
    const undo = await store.removeFind(store.finds[0]!.id)
    expect(placeOfE()).toBeCloseTo(328 / 9, 9)
    await undo()
    expect(placeOfE()).toBe(moved)
  })
})
