import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import type { Instrument, TapeEvent } from '#contracts'
import { mounted } from '../mounting'
import { bareSetup, useBench } from '../stores/bench'
import { useNotices } from '../stores/notices'
import { known, AN_INSTRUMENT, fakeServer, freshStores, type Reply, lists, until } from '../testing'
import ComparePage from './ComparePage.vue'
import InstrumentPage from './InstrumentPage.vue'
import InstrumentsPage from './InstrumentsPage.vue'
import LayPage from './LayPage.vue'

const TAPED: Instrument = {
  ...AN_INSTRUMENT,
  tapes: [{ markId: '1.2', laidMm: 31.6, placeMm: 32.9, laidOn: '2026-03-28', seenOn: '2026-11-07' }],
}
const OTHER: Instrument = {
  ...AN_INSTRUMENT,
  id: '01900000-0000-7000-8000-000000000010',
  label: 'no. 10',
  family: 'cello',
  sizeId: '3/4',
  tuning: ['C2', 'G2', 'D3', 'A3'],
  measurement: { ...AN_INSTRUMENT.measurement!, lengthMm: 618 },
}
const event = (kind: TapeEvent['kind'], markId: string | null, placeMm: number | null): TapeEvent => ({
  id: `01900000-0000-7000-8000-0000000000${kind.length}0`,
  instrumentId: TAPED.id,
  kind,
  markId,
  placeMm,
  on: '2026-11-07',
  reason: 'warm hands',
  by: 'Hester Lowe',
  recordedAt: '2026-11-07T09:00:00.000Z',
})
const ok = (body: unknown): Reply => ({ status: 200, body })

beforeEach(() => {
  sessionStorage.clear()
  localStorage.clear()
  freshStores()
})

describe('laying, on a music stand', () => {
  it('goes through tuning, tape and what was done by keys, and logs the places that rang', async () => {
    known({ instruments: [TAPED] })
    const find = {
      id: 'f',
      instrumentId: TAPED.id,
      string: 'D4',
      note: 'E4',
      system: 'fifths',
      cents: 203.91,
    }
    const sent = fakeServer(
      ok([]),
      ok(TAPED),
      ok({ ...find, placeMm: 31.8, isTrusted: false, foundOn: '2026-11-25', by: 'Hester Lowe' }),
    )
    const store = useBench()
    await store.choose(TAPED.id)
    await flushPromises()
    store.setup = { ...store.setup, schoolId: 'first' }
    await nextTick()
    const { text, press, router } = await mounted(LayPage)
    expect(text()).toContain('Tune first.')
    expect(text()).toContain('Cut 70 mm of tape') // girth at the place and 8 mm to overlap
    await press('Enter')
    expect(text()).toContain('31.6 mm')
    expect(text()).toContain('Bow E4 on the D string and slide until open E rings, an octave above.')
    for (const key of ['ArrowRight', 'ArrowRight', 's']) await press(key)
    await press('Enter')
    expect(text()).toContain('Still to do, and to tick: press it on and wrap it round (W).')
    // a box that was ticked with the mouse keeps the focus, and the keys go on
    const wrapped = document.querySelectorAll<HTMLInputElement>('input[type="checkbox"]')[1]!
    wrapped.click()
    await press('Enter', wrapped)
    expect(text()).toContain('1 tape laid.')
    // tapes lay there before: only then is a reason asked for
    expect(text()).toContain('Why they are laid again, for the log')
    await press('Enter')
    await flushPromises()
    expect(sent.at(-2)).toMatchObject({
      method: 'POST',
      path: `/api/v1/instruments/${TAPED.id}/tape-sets`,
      body: { marks: [{ markId: '1.2', placeMm: 31.8 }], schoolId: 'first' },
    })
    // it rang elsewhere than computed: that is data for the other places
    expect(sent.at(-1)).toMatchObject({ body: { string: 'D4', note: 'E4', placeMm: 31.8 } })
    // The next act is the hand that is to use them, a key away.
    expect(text()).toContain(`1 tape logged as laid on ${TAPED.label}.`)
    await press('c')
    await flushPromises()
    expect(router.currentRoute.value.name).toBe('check')
  })

  it('has nothing to lay before a string is measured', async () => {
    useBench().setup = bareSetup('violin')
    const { router } = await mounted(LayPage)
    await flushPromises()
    expect(router.currentRoute.value.name).toBe('tapes')
  })
})

describe('an instrument that is no longer lent', () => {
  it('is taken out of the cupboard, and put back by Undo or by a key', async () => {
    let removedAt: string | null = null
    known({ instruments: [TAPED] })
    const sent = fakeServer(({ method, path }) => {
      if (method === 'DELETE') removedAt = '2026-11-28T10:00:00.000Z'
      if (path.endsWith('/restore')) removedAt = null
      return path.endsWith('/tape-events') ? ok([]) : ok({ ...TAPED, removedAt })
    })
    const { text, named, press } = await mounted(InstrumentPage, { instrumentId: TAPED.id })
    await flushPromises()
    ;(named('Take out of the cupboard') as HTMLElement).click()
    await flushPromises()
    expect(text()).toContain('taken out of the cupboard')
    await useNotices().notices.at(-1)?.action?.run()
    await nextTick()
    expect(text()).toContain('in the cupboard')
    ;(named('Take out of the cupboard') as HTMLElement).click()
    await flushPromises()
    await press('u')
    await flushPromises()
    expect(sent.filter((s) => s.method !== 'GET').map((s) => s.method)).toEqual([
      'DELETE',
      'POST',
      'DELETE',
      'POST',
    ])
    expect(text()).not.toContain('taken out')
  })
})

describe('an instrument’s page', () => {
  it('tells what lies there, what has crept and what is due, and takes an entry back', async () => {
    known({ instruments: [TAPED] })
    const events = [event('laid', '1.2', 31.6), event('crept', '1.2', 32.9), event('trial', null, null)]
    const sent = fakeServer(ok(events), ok(TAPED), ok([events[0]]))
    const { text, named } = await mounted(InstrumentPage, { instrumentId: TAPED.id })
    await flushPromises()
    expect(text()).toContain('crept +1.3 mm')
    expect(text()).toContain('a tape has crept 1.3 mm')
    expect(text()).toContain('Tried without')
    ;(named(/Take back: Crept/) as HTMLElement).click()
    await flushPromises()
    expect(sent[1]).toMatchObject({ method: 'DELETE', path: `/api/v1/tape-events/${events[1]!.id}` })
    expect(text()).not.toContain('Crept')
  })

  it('says beside the field what an entry lacks, and keeps what was typed', async () => {
    known({ instruments: [TAPED] })
    const sent = fakeServer(ok([]))
    const { named, text, wrapper } = await mounted(InstrumentPage, { instrumentId: TAPED.id })
    await flushPromises()
    const reason = named('Why') as HTMLInputElement
    reason.value = 'new strings'
    reason.dispatchEvent(new Event('input'))
    await wrapper.find('form').trigger('submit')
    expect(text()).toContain('Type where the tape’s middle is')
    expect(reason.value).toBe('new strings')
    expect(sent.filter((s) => s.method === 'POST')).toEqual([])
  })
})

describe('the cupboard', () => {
  it('finds by number, family and holder, keeps only what is due, and counts the strips of what is chosen', async () => {
    const sent = fakeServer(lists({ instruments: [TAPED, OTHER] }))
    const { text, named, press } = await mounted(InstrumentsPage)
    await flushPromises()
    expect(text()).toContain('2 instruments')
    const search = named('Find an instrument') as HTMLInputElement
    search.value = 'cello'
    search.dispatchEvent(new Event('input'))
    await until(() => expect(text()).toContain('1 instrument'))
    expect([text().includes('no. 10'), text().includes('no. 7')]).toEqual([true, false])
    search.value = ''
    search.dispatchEvent(new Event('input'))
    await until(() => expect(text()).toContain('2 instruments'))
    await press('a')
    await until(() => expect(text()).toContain('Print 2 strips'))
    await press('a')
    await press('ArrowDown')
    await press(' ')
    expect(text()).toContain('Print 1 strip')
    document.querySelector<HTMLInputElement>('.el-checkbox input')!.click()
    await flushPromises()
    expect(sent.at(-1)!.path).toMatch(/dueOn=\d{4}-\d\d-\d\d/)
  })
})

describe('changing size', () => {
  it('shows old, new and what moves, and says so where the hands are shaped differently', async () => {
    known({ instruments: [TAPED, OTHER] })
    const { text, router } = await mounted(ComparePage)
    await router.replace({ query: { from: 'violin 1/2', to: 'violin 3/4' } })
    await nextTick()
    expect(text()).toContain('1st finger31.734.2+2.6 mm up') // a ninth of 285 and of 308
    expect(text()).toContain('Never stretch the fourth finger')
    await router.replace({ query: { from: TAPED.id, to: OTHER.id } })
    await nextTick()
    expect(text()).toContain('31.6')
    expect(text()).toContain('68.7') // a ninth of 618
  })

  it('keeps every tape of either side, reckoned where the other has none', async () => {
    const lies = (...ids: string[]) => ids.map((markId) => ({ ...TAPED.tapes[0]!, markId }))
    const many = { ...TAPED, tapes: lies('1.2', '2.3', '3.5') }
    const longer = {
      ...TAPED,
      id: OTHER.id,
      sizeId: '3/4',
      measurement: { ...TAPED.measurement!, lengthMm: 306 },
      tapes: lies('3.5', '4.7'),
    }
    known({ instruments: [many, longer] })
    const { text, router } = await mounted(ComparePage)
    await router.replace({ query: { from: many.id, to: longer.id } })
    await nextTick()
    // Whole tone, minor third, fourth and fifth of Pythagoras on both: L/9, 5L/32, L/4, L/3.
    for (const share of [1 / 9, 5 / 32, 1 / 4, 1 / 3])
      expect(text()).toContain(`${(284.5 * share).toFixed(1)}${(306 * share).toFixed(1)}+`)
  })

  it('goes from what lies on the bench, and says of an instrument that is not measured what to do', async () => {
    const unmeasured = {
      ...OTHER,
      id: '01900000-0000-7000-8000-000000000011',
      label: 'no. 11',
      measurement: null,
    }
    fakeServer(lists({ instruments: [unmeasured] }))
    useBench().setup = { ...bareSetup('cello'), sizeId: '1/2', lengthText: '580' }
    const { text, router, press } = await mounted(ComparePage)
    await nextTick()
    expect(text()).toMatch(/on the bench · cello ½.*typical cello ¾/)
    expect(text()).toContain('64.4') // a ninth of 580
    await router.replace({ query: { from: 'cello 1/2', to: unmeasured.id } })
    await until(() => expect(text()).toContain('no. 11 is not measured yet'))
    await press('y')
    await flushPromises()
    expect(router.currentRoute.value.query['to']).toBe('cello 3/4')
    await router.replace({ query: { from: unmeasured.id } })
    await nextTick()
    await press('t')
    await flushPromises()
    expect(router.currentRoute.value.name).toBe('tapes')
    expect(useBench().instrument?.label).toBe('no. 11')
  })
})
