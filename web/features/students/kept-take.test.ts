import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import {
  encodeTrack,
  hearNotes,
  landingsOf,
  mannerOf,
  noteName,
  perform,
  readTake,
  record,
  seededSource,
  snapshotOf,
  TakeListener,
  playedNotes,
} from '#core'
import type { Check } from '#contracts'
import { shaped, strung } from '../../../core/testing'
import { trackNotes } from '../../charts/track-notes'
import { mounted } from '../../mounting'
import { A_STUDENT, AN_INSTRUMENT, fakeServer, freshStores, problem, signedIn } from '../../testing'
import CheckHistory from './CheckHistory.vue'

const RATE = 22_050
const violin = strung('violin', 328)
const onA = shaped('violin')
/** Tuned to 442, by an ensemble that does; the studio has gone back to 440 since. */
const A4_HZ = 442
const sound = record(
  seededSource(22),
  perform(
    seededSource(21),
    violin,
    { ...onA, notes: playedNotes(onA) },
    mannerOf('trained', { handOffsetMm: 2, repairs: 0, wobbleCents: 0 }),
  ),
  { sampleRateHz: RATE, a4Hz: A4_HZ },
)
const listener = new TakeListener(RATE)
listener.push(sound)
const { notes, track } = listener.end()
const landings = landingsOf(violin, readTake(notes, violin, playedNotes(onA), A4_HZ), 'microphone')

function check(hasTrack: boolean): Check {
  return {
    id: 'the check',
    studentId: A_STUDENT.id,
    instrumentId: AN_INSTRUMENT.id,
    takenAt: '2026-11-20T10:00:00.000Z',
    exercise: { kind: 'shape', string: 'A4', shapeId: 'first', notes: [] },
    stringing: snapshotOf(violin) as Check['stringing'],
    landings: landings.map((l) => ({ ...l, note: noteName(l.note) })),
    verdict: { outcome: 'in_tune', worst: { finger: 1, meanCents: 4 } },
    decision: null,
    rejudged: null,
    likely: null,
    tapesMm: [],
    tapesCovered: false,
    hasTrack,
    toleranceCents: 15,
    unreadable: null,
    note: '',
    by: 'Hester Lowe',
    removedAt: null,
  }
}

beforeEach(() => {
  freshStores()
  signedIn()
})
afterEach(() => vi.unstubAllGlobals())

describe('a take in the file', () => {
  it('is drawn as it was judged, whatever the studio tunes to by now', () => {
    expect(hearNotes(sound, RATE).notes).toHaveLength(landings.length)
    for (const { moments, landingCents, finger } of trackNotes(violin, track, landings)) {
      const held = moments.slice(4, -2).map(([, cents]) => cents)
      const mean = held.reduce((a, b) => a + b, 0) / held.length
      expect(Math.abs(mean - landingCents), `finger ${finger}`).toBeLessThan(2.5)
    }
  })

  it('marks the notes that were left out, and no others', () => {
    const marked = trackNotes(violin, track, landings, new Set([landings[2]!]))
    expect(marked.flatMap(({ isStray }, i) => (isStray ? [i] : []))).toEqual([2])
  })

  it('is fetched when it is asked for, and read out note by note', async () => {
    const coded = Buffer.from(encodeTrack(track)).toString('base64')
    const sent = fakeServer(({ path }) =>
      path.endsWith('/track') ? { status: 200, body: { track: coded } } : { status: 200, body: [] },
    )
    const { wrapper, named } = await mounted(CheckHistory, { checks: [check(true)] })
    expect(sent).toEqual([])
    ;(named(/note by note/) as HTMLElement).click()
    await flushPromises()
    expect(sent.map(({ path }) => path).sort()).toEqual([
      '/api/v1/attachments/check/the%20check',
      '/api/v1/checks/the%20check/track',
    ])
    const told = wrapper.find('svg').attributes('aria-label')
    expect(told).toContain('9 notes against what was meant')
    expect(told).toMatch(/finger 1, B4, landed \+\d+/)
  })

  it('that was stored is heard again, and its sound is removed for good', async () => {
    const coded = Buffer.from(encodeTrack(track)).toString('base64')
    let stored = [
      { id: 'a recording', mediaType: 'audio/wav' },
      { id: 'a picture', mediaType: 'image/png' },
    ]
    const sent = fakeServer(({ method, path }) => {
      if (path.endsWith('/track')) return { status: 200, body: { track: coded } }
      if (method === 'DELETE') stored = []
      return { status: 200, body: method === 'DELETE' ? null : stored }
    })
    const { wrapper, named } = await mounted(CheckHistory, { checks: [check(true)] })
    ;(named(/note by note/) as HTMLElement).click()
    await flushPromises()
    expect(wrapper.findAll('audio').map((one) => one.attributes('src'))).toEqual([
      '/api/v1/attachments/a recording',
    ])
    ;(named('Remove the sound for good') as HTMLElement).click()
    await flushPromises()
    expect(sent.find(({ method }) => method === 'DELETE')?.path).toBe('/api/v1/attachments/a%20recording')
    expect(wrapper.find('audio').exists()).toBe(false)
  })

  it('says so when it cannot be fetched; a typed check has none', async () => {
    fakeServer(problem(404, 'not_found'))
    const { text, named } = await mounted(CheckHistory, { checks: [check(true)] })
    ;(named(/note by note/) as HTMLElement).click()
    await flushPromises()
    expect(text()).not.toContain('Fetching')
    const typed = await mounted(CheckHistory, { checks: [check(false)] })
    expect(typed.text()).not.toContain('Note by note')
  })
})
