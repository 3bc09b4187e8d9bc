import { beforeEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import type { Instrument } from '#contracts'
import { useBench } from '../../stores/bench'
import { useLesson } from '../../stores/lesson'
import { useNotices } from '../../stores/notices'
import { useStudio } from '../../stores/studio'
import {
  known,
  A_STUDENT,
  AN_INSTRUMENT,
  fakeServer,
  freshStores,
  problem,
  signedIn,
  type Reply,
} from '../../testing'
import { useKeepOnInstrument } from './useKeepOnInstrument'

const saved = (more: Partial<Instrument>): Reply => ({
  status: 200,
  body: { ...AN_INSTRUMENT, version: 2, ...more },
})
const said = () => useNotices().notices.at(-1)?.text

/** The bench with the student's instrument on it, in front of a server that answers like this. */
function laidOut(...replies: Reply[]) {
  const sent = fakeServer(...replies)
  known({ students: [A_STUDENT] })
  known({ instruments: [AN_INSTRUMENT] })
  useLesson().begin(A_STUDENT.id)
  return { sent, bench: useBench(), keep: useKeepOnInstrument() }
}

beforeEach(() => {
  sessionStorage.clear()
  localStorage.clear()
  freshStores()
  signedIn()
})

describe('a length that was typed', () => {
  it('is kept as typed, and is then what the instrument has in every room', async () => {
    const measurement = { ...AN_INSTRUMENT.measurement!, lengthMm: 286, typed: '286' }
    const { sent, bench, keep } = laidOut(saved({ measurement }))
    expect(keep.isMeasured.value).toBe(true)
    bench.setup.lengthText = '286'
    expect(keep.isMeasured.value).toBe(false)
    await keep.keepLength(false)
    expect(sent[0]).toMatchObject({
      path: `/api/v1/instruments/${AN_INSTRUMENT.id}/measurements`,
      body: { length: '286', method: 'bridge', keepAnyway: false },
    })
    expect(keep.isMeasured.value).toBe(true)
    expect(useStudio().student(A_STUDENT.id)?.instrument?.measurement?.lengthMm).toBe(286)
    expect(said()).toBe('286.0 mm is kept for no. 7.')
  })

  it('that does not suit the size is kept only when the teacher stands by it', async () => {
    const { sent, bench, keep } = laidOut(saved({}))
    bench.setup.lengthText = '328'
    await keep.keepLength(false)
    expect(sent).toEqual([])
    await keep.keepLength(true)
    expect(sent[0]?.body).toMatchObject({ length: '328', keepAnyway: true })
  })

  it('string by string goes as it was typed, all of them', async () => {
    const { sent, bench, keep } = laidOut(saved({}))
    Object.assign(bench.setup, { method: 'strings', stringTexts: ['285', '285', '284.5', '284'] })
    await nextTick()
    await keep.keepLength(false)
    expect(sent[0]?.body).toMatchObject({ strings: ['285', '285', '284.5', '284'] })
    expect(said()).toBe('285.0, 285.0, 284.5 and 284.0 mm are kept for no. 7.')
  })

  it('stays typed when the server refuses it', async () => {
    const { bench, keep } = laidOut(problem(422, 'invalid_request', 'No violin has such a string.'))
    bench.setup.lengthText = '286'
    await expect(keep.keepLength(false)).rejects.toThrow('No violin has such a string.')
    expect(bench.setup.lengthText).toBe('286')
    expect(keep.isMeasured.value).toBe(false)
  })
})

describe('what else the bench shows', () => {
  it('is kept with the version it was read in: size, strings, heights', async () => {
    const { sent, bench, keep } = laidOut(saved({ sizeId: '3/4' }))
    await keep.takeSize('3/4')
    expect(sent[0]).toMatchObject({ method: 'PATCH', body: { version: 1, sizeId: '3/4' } })
    expect([said(), bench.setup.sizeId]).toEqual(['no. 7 is now a ¾.', '3/4'])
    bench.setup.tuningText = 'C3 G3 D4 A4'
    await keep.keepTuning()
    expect(sent[1]?.body).toEqual({ version: 2, tuning: ['C3', 'G3', 'D4', 'A4'] })
    Object.assign(bench.setup, {
      pressingMode: 'measured',
      nutHeightMm: 0.5,
      endHeightMm: 4.5,
      material: 'gut',
    })
    await keep.keepPressing()
    expect(sent[2]?.body).toMatchObject({
      pressing: { mode: 'measured', nutHeightMm: 0.5, endHeightMm: 4.5, material: 'gut' },
    })
  })

  it('is a size of the bench alone where no instrument lies on it', async () => {
    const sent = fakeServer(saved({}))
    await useKeepOnInstrument().takeSize('3/4')
    expect([useBench().setup.sizeId, sent]).toEqual(['3/4', []])
  })

  it('is the tapes as they were laid, where each was found', async () => {
    const { sent, keep } = laidOut(saved({}))
    await keep.logLaid([{ markId: '1.2', placeMm: 31.8 }], 'new strings')
    expect(sent[0]).toMatchObject({
      path: `/api/v1/instruments/${AN_INSTRUMENT.id}/tape-sets`,
      body: { system: 'fifths', marks: [{ markId: '1.2', placeMm: 31.8 }], reason: 'new strings' },
    })
    expect(said()).toBe('31.8 mm logged as laid on no. 7.')
  })
})
