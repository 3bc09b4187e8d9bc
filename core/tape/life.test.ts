import { describe, expect, it } from 'vitest'
import { tapeLives, tapesDue, tapesNow, type TapeEvent, type TapeEventKind } from './index'

function event(
  on: string,
  kind: TapeEventKind,
  placeMm: number | null = null,
  markId: string | null = '1.2',
): TapeEvent {
  return { on, kind, placeMm, markId }
}

const YEAR = [
  event('2026-01-10', 'laid', 31.6),
  event('2026-01-10', 'laid', 71.1, '3.5'),
  event('2026-02-14', 'checked', 31.7),
  event('2026-03-14', 'crept', 32.6),
  event('2026-03-14', 'moved', 31.6),
  event('2026-04-18', 'faded', null, '3.5'),
  event('2026-05-02', 'replaced', 31.5),
  event('2026-06-06', 'trial', null, null),
]

describe('the life of tapes', () => {
  it('is told tape by tape: laid, crept, moved back, faded, replaced', () => {
    const lives = tapeLives(YEAR)
    expect(lives.map((l) => [l.markId, l.laidOn, l.endedOn, l.endedBy])).toEqual([
      ['1.2', '2026-01-10', '2026-05-02', 'replaced'],
      ['3.5', '2026-01-10', '2026-04-18', 'faded'],
      ['1.2', '2026-05-02', null, null],
    ])
    expect(lives[0]?.seen.map((s) => s.kind)).toEqual(['laid', 'checked', 'crept', 'moved'])
    expect(lives[0]).toMatchObject({ laidMm: 31.6, placeMm: 31.6 }) // moved back: no creep left
    expect(tapesNow(YEAR).map((l) => l.placeMm)).toEqual([31.5])
  })

  it('takes a tape first heard of in a check as lying there, and a removal of nothing as nothing', () => {
    expect(tapesNow([event('2026-01-01', 'removed'), event('2026-01-02', 'checked', 40)])).toHaveLength(1)
  })
})

describe('what tapes ask for', () => {
  const facts = (events: TapeEvent[], extra = {}) => ({
    tapes: tapesNow(events),
    warmHands: false,
    measurement: { measuredOn: '2026-01-10', recordedAt: '2026-01-10T09:00:00.000Z' },
    bridgeChangedOn: null,
    bridgeChangedAt: null,
    triedWithoutOn: null,
    ...extra,
  })
  const laid = [event('2026-01-10', 'laid', 31.6)]
  const codes = (today: string, f: Parameters<typeof tapesDue>[1]) => tapesDue(today, f).map((d) => d.code)

  it('a look every eight weeks, under warm hands every three', () => {
    expect(codes('2026-03-07', facts(laid))).toEqual([]) // 56 days
    expect(codes('2026-03-08', facts(laid))).toEqual(['check_tapes'])
    expect(codes('2026-02-01', facts(laid, { warmHands: true }))).toEqual(['check_tapes'])
    // One of two was looked at since: they were not all last seen so long ago.
    const both = [...laid, { ...laid[0]!, markId: '3.5', placeMm: 71.1 }]
    expect(tapesDue('2026-03-08', facts(both))).toMatchObject([{ days: 57, isEvery: true }])
    const checked = [...both, { ...event('2026-03-01', 'checked', 71.1), markId: '3.5' }]
    expect(tapesDue('2026-03-08', facts(checked))).toMatchObject([{ days: 57, isEvery: false }])
  })

  it('to be laid again once one has crept, and measuring again after the bridge was changed', () => {
    const crept = [...laid, event('2026-02-01', 'crept', 33)]
    expect(tapesDue('2026-02-02', facts(crept))[0]).toMatchObject({ code: 'tape_crept', markId: '1.2' })
    expect(codes('2026-02-02', facts(laid, { bridgeChangedOn: '2026-02-01' }))).toEqual([
      'remeasure_after_bridge',
    ])
    expect(codes('2026-02-02', facts(laid, { bridgeChangedOn: '2026-01-09' }))).toEqual([])
    // On the day of the measurement, what was written down first happened first.
    const sameDay = (bridgeChangedAt: string) =>
      facts(laid, { bridgeChangedOn: '2026-01-10', bridgeChangedAt })
    expect(codes('2026-01-11', sameDay('2026-01-10T09:30:00.000Z'))).toEqual(['remeasure_after_bridge'])
    expect(codes('2026-01-11', sameDay('2026-01-10T08:30:00.000Z'))).toEqual([])
  })

  it('to be tried without after five months, until that was done', () => {
    const seen = [...laid, event('2026-06-20', 'checked', 31.6)]
    expect(codes('2026-06-27', facts(seen))).toEqual(['try_without'])
    expect(codes('2026-06-27', facts(seen, { triedWithoutOn: '2026-06-20' }))).toEqual([])
  })
})
