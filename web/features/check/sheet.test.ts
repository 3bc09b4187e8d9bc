import { beforeEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import { judgeTake, landedPlaces, landingFromMeter, shownByMeter, targetsOf } from '#core'
import { landed, shaped, strung } from '../../../core/testing'
import { mounted } from '../../mounting'
import { freshStores } from '../../testing'
import ReadingSheet from './ReadingSheet.vue'
import type { ReadingRow } from './useReadings'
import VerdictCard from './VerdictCard.vue'

const stringing = strung('violin', 284.5)
const exercise = shaped('violin')
const targets = targetsOf(stringing, exercise)

/** What a meter, which shows whole cents, makes of a hand whose first fingers land `cents` off. */
function landingsOf(...cents: readonly number[]) {
  const exact = landed(
    { stringing, exercise },
    cents.map((off, i) => [exercise.notes[i + 1]!.finger, off]),
  )
  return exact.map((l) => landingFromMeter(stringing, l, Math.round(shownByMeter(stringing, l))))
}
const verdictOf = (...cents: readonly number[]) =>
  judgeTake({ stringing, exercise, landings: landingsOf(...cents), toleranceCents: 15 })

const row = (finger: ReadingRow['finger'], more: Partial<ReadingRow> = {}): ReadingRow => ({
  id: String(finger),
  finger,
  index: null,
  text: '',
  kept: undefined,
  told: [],
  fault: undefined,
  ...more,
})
const ROWS = [row(0), row(1), row(2), row(3), row(4)]

function sheet(props: Record<string, unknown> = {}) {
  return mounted(ReadingSheet, {
    by: 'meter',
    rows: ROWS,
    exercise,
    tuning: stringing.tuning,
    targets,
    places: [],
    toleranceCents: 15,
    ...props,
  })
}

beforeEach(freshStores)

describe('the reading sheet', () => {
  it('says where each finger belongs and what the meter should show there (A fixed, pure fifths)', async () => {
    const { text } = await sheet()
    // 9:8 on A: B, 203.910 − 200; 81:64: C♯, 407.820 − 400; 4:3: D, 498.045 − 500 (published)
    expect(text()).toMatch(/1 B\s?31\.6\s?\+4/)
    expect(text()).toMatch(/2 C♯\s?59\.7\s?\+8/)
    expect(text()).toMatch(/3 D\s?71\.1\s?−2/)
    expect(text()).toMatch(/Open A/)
  })

  it('says on an empty sheet that one field takes several notes, and is quiet once something stands there', async () => {
    const hints = ({ named }: Awaited<ReturnType<typeof sheet>>) =>
      [1, 2].map((n) => (named(`Finger ${n}, cents`) as HTMLInputElement).placeholder)
    expect(hints(await sheet())).toEqual(['e.g. −22 −20', ''])
    expect(hints(await sheet({ rows: [row(0), row(1), row(2, { text: '4' }), row(3)] }))).toEqual(['', ''])
  })

  it('is walked with Enter and the arrows, and Enter on the last finger is done', async () => {
    const { named, press, wrapper } = await sheet()
    const field = (finger: number) => named(`Finger ${finger}, cents`)
    ;(field(1) as HTMLElement).focus()
    await press('Enter', field(1))
    expect(document.activeElement).toBe(field(2))
    await press('ArrowDown', field(2))
    await press('ArrowUp', field(3))
    expect(document.activeElement).toBe(field(2))
    await press('ArrowUp', named('Open string, cents'))
    expect(document.activeElement).toBe(named('Open string, cents'))
    expect(wrapper.emitted('done')).toBeUndefined()
    await press('Enter', field(4))
    expect(wrapper.emitted('done')).toHaveLength(1)
  })

  it('passes on what is typed, finger by finger, and shows a fault in its row', async () => {
    const rows = ROWS.map((r) =>
      r.finger === 2 ? { ...r, text: '900', fault: '900 cents is another note' } : r,
    )
    const { named, text, wrapper } = await sheet({ rows })
    const input = named('Finger 1, cents') as HTMLInputElement
    input.value = '+6'
    input.dispatchEvent(new Event('input'))
    await nextTick()
    expect(wrapper.emitted('type')).toEqual([['1', '+6']])
    expect(text()).toContain('900 cents is another note')
    expect(named('Finger 2, cents').getAttribute('aria-invalid')).toBe('true')
  })

  it('by eye is touched or typed, against the tape, and its open string is still a number', async () => {
    const { named, text, wrapper } = await sheet({ by: 'eye' })
    ;(named('Finger 2, by eye: past') as HTMLElement).click()
    expect(wrapper.emitted('type')).toEqual([['2', 'p']])
    expect((named('Finger 2, by eye') as HTMLElement).dataset['takes']).toBe('sides')
    expect((named('Open string, cents') as HTMLElement).dataset['takes']).toBe('number')
    expect(text()).not.toContain('should show')
  })

  it('tells sharp and flat by sign and arrow, not by colour alone, and leaves what is in tune plain', async () => {
    const { text } = await sheet({ places: landedPlaces(stringing, landingsOf(30, 3, -2, -28)) })
    expect(text()).toContain('+30 ▶')
    expect(text()).toContain('◀ −28')
    expect(text()).not.toMatch(/[▶◀] ?[+−]?[23]\b/)
  })
})

describe('the verdict', () => {
  it('says in a sentence what the hand does, what to check first, and what never to do', async () => {
    const { text } = await mounted(VerdictCard, {
      verdict: verdictOf(0, -1, 1, -26),
      noteCount: 4,
      toleranceCents: 15,
      family: 'violin',
    })
    expect(text()).toMatch(/The frame is \d\.\d mm too narrow: the fourth finger lands 26 cents flat/)
    expect(text()).toContain('Check first')
    expect(text()).toContain('Not this')
    expect(text()).toContain('4 notes')
  })

  it('does not judge a hand of two fingers', async () => {
    const { text } = await mounted(VerdictCard, {
      verdict: verdictOf(5, 8),
      noteCount: 2,
      toleranceCents: 15,
      family: 'violin',
    })
    expect(text()).toContain('Not enough notes yet')
  })
})
