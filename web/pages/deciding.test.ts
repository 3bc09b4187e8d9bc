import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import type { Finger } from '#core'
import type { Check, DecisionDraft } from '#contracts'
import { mounted, type Mounted } from '../mounting'
import { useLesson } from '../stores/lesson'
import {
  aCheck,
  A_STUDENT,
  AN_INSTRUMENT,
  fakeServer,
  freshStores,
  known,
  lists,
  signedIn,
  until,
  type Sent,
} from '../testing'
import CheckPage from './CheckPage.vue'

const PLAYER = { ...A_STUDENT, instrument: AN_INSTRUMENT }

/** A kept check whose fourth finger fell short, each finger so many times. */
function narrow(id: string, takenAt: string, times: number, more: Partial<Check> = {}): Check {
  const heard = Array.from({ length: times }, (_, i) =>
    [0, 1, -1, -30].map((cents, f) => [(f + 1) as Finger, cents + (i % 2)] as const),
  ).flat()
  return aCheck(id, takenAt, heard, more)
}

let page: Mounted
let sent: Sent[]
const now = () => new Date().toISOString()

async function open(earlier: readonly Check[] = [], player = PLAYER) {
  const studio = lists({ students: [player] })
  let kept = narrow('kept', now(), 2)
  sent = fakeServer((request) => {
    const { method, path, body } = request
    if (path.endsWith('/decision')) {
      const said = body as DecisionDraft
      const { reason = null, sentence = null, workOn = null, says } = said ?? {}
      kept = { ...kept, decision: { says, reason, sentence, workOn, by: 'Hester Lowe', at: now() } }
      return { status: 200, body: method === 'DELETE' ? { ...kept, decision: null } : kept }
    }
    if (method === 'POST') return { status: 200, body: kept }
    if (/\/checks\?/.test(path)) return { status: 200, body: earlier }
    return studio(request)
  })
  freshStores()
  signedIn()
  known({ students: [player] })
  useLesson().begin(player.id)
  page = await mounted(CheckPage)
  await flushPromises()
}
async function type(finger: number, text: string, unit = 'cents') {
  const field = page.named(`Finger ${finger}, ${unit}`) as HTMLInputElement
  field.focus()
  field.value = text
  field.dispatchEvent(new Event('input'))
  await nextTick()
  return field
}

beforeEach(() => {
  localStorage.clear()
  sessionStorage.clear()
})
afterEach(() => {
  page.wrapper.unmount()
  vi.unstubAllGlobals()
})

describe('a verdict that was kept', () => {
  const decisions = () => sent.filter(({ path }) => path.endsWith('/decision'))
  async function keptCheck(player = PLAYER) {
    await open([], player)
    const last = await type(4, '-28 -27')
    await page.press('Enter', last)
    await until(() => expect(page.text()).toContain('Kept verdict'))
  }

  it('is accepted by A, with the first thing to work on, and taken back by the notice', async () => {
    await keptCheck()
    await page.press('a')
    await until(() => expect(page.text()).toContain('Accepted. To work on: A frame as wide as it should be.'))
    expect(decisions()[0]?.body).toMatchObject({
      says: 'accepted',
      workOn: 'A frame as wide as it should be',
    })
  })

  it('is overruled by V with a reason and in other words, and says what stands then', async () => {
    await keptCheck()
    await page.press('v')
    await nextTick()
    const why = page.named('Why it is overruled') as HTMLSelectElement
    why.value = 'tape'
    why.dispatchEvent(new Event('change'))
    const words = document.querySelector('textarea')!
    expect(document.activeElement).toBe(words)
    words.value = 'The tape had slipped.'
    words.dispatchEvent(new Event('input'))
    ;(document.querySelector('.decision form') as HTMLFormElement).requestSubmit()
    await until(() => expect(page.text()).toContain('Overruled: it was a tape. “The tape had slipped.”'))
    expect(decisions()[0]?.body).toEqual({
      says: 'overruled',
      reason: 'tape',
      sentence: 'The tape had slipped.',
      workOn: null,
      isMended: false,
    })
  })

  it('leaves the one thing that was agreed before, when it is accepted', async () => {
    const workingOn = { checkId: 'before', workOn: 'Elbow', since: '2026-11-14T09:00:00Z' }
    await keptCheck({ ...PLAYER, workingOn })
    await page.press('a')
    await until(() => expect(decisions()[0]?.body).toMatchObject({ says: 'accepted', workOn: null }))
  })

  it('is left as it is by Escape', async () => {
    await keptCheck()
    await page.press('w')
    await nextTick()
    // Rewording begins with the sentence as it was said.
    expect(document.querySelector('textarea')!.value).toMatch(/^The frame is .*well\.$/)
    await page.press('Escape', document.querySelector('textarea')!)
    expect(document.querySelector('textarea')).toBeNull()
    expect(decisions()).toEqual([])
  })
})

describe('earlier takes', () => {
  const days = (ago: number) => new Date(Date.now() - ago * 86_400_000).toISOString()
  const EARLIER = [7, 14, 21].map((ago) => narrow(`of ${ago}`, days(ago), 4))
  const thin = async () => {
    for (const [finger, shown] of [
      [1, '4'],
      [2, '8'],
      [3, '-2'],
      [4, '-18'],
    ] as const)
      await type(finger, shown)
  }

  it('have a say in a thin one, which is said, until Y switches them off', async () => {
    await open(EARLIER)
    await thin()
    expect(page.text()).toMatch(/3 earlier takes of this hand, the newest 7 days old/)
    const withThem = page.text()
    await page.press('y')
    expect(page.text()).not.toContain('earlier takes of this hand')
    expect(page.text()).not.toBe(withThem)
    const last = page.named('Finger 4, cents')
    await page.press('Enter', last)
    await until(() => expect(sent.some(({ method }) => method === 'POST')).toBe(true))
    expect(sent.find(({ method }) => method === 'POST')?.body).toMatchObject({ withEarlier: false })
    // Of the next student they count, and of this one they still do not.
    const next = { ...PLAYER, id: '0197c0de-0000-7000-8000-0000000000aa', name: 'Perran Lisle' }
    known({ students: [PLAYER, next] })
    useLesson().begin(next.id)
    await flushPromises()
    await thin()
    expect(page.text()).toMatch(/3 earlier takes of this hand/)
    useLesson().begin(PLAYER.id)
    await flushPromises()
    await thin()
    expect(page.text()).not.toMatch(/3 earlier takes of this hand/)
  })

  it('that were overruled, or of another instrument, have none', async () => {
    const overruled = {
      says: 'overruled',
      reason: 'other',
      sentence: null,
      workOn: null,
      by: '',
      at: now(),
    } as const
    await open([
      narrow('a', days(7), 4, { decision: overruled }),
      narrow('b', days(8), 4, { instrumentId: 'another' }),
    ])
    await thin()
    expect(page.text()).not.toContain('Earlier takes count')
  })
})

describe('a hand read by eye', () => {
  it('is typed in three letters, judged at its own certainty, and sent as it was seen', async () => {
    await open()
    // The cursor stands among numbers, which no letter can lead to.
    await page.press('b')
    await page.press('b')
    for (const finger of [1, 2, 3]) await type(finger, 'ooo', 'by eye')
    const last = await type(4, 'bbb', 'by eye')
    expect(page.text()).toMatch(/Not enough notes yet: about \d+ notes? more|The frame is/)
    await page.press('Enter', last)
    await until(() => expect(sent.some(({ method }) => method === 'POST')).toBe(true))
    const { readings } = sent.find(({ method }) => method === 'POST')?.body as { readings: unknown[] }
    expect(readings).toHaveLength(12)
    expect(readings[0]).toEqual({ finger: 1, side: 'on' })
    expect(readings.at(-1)).toEqual({ finger: 4, side: 'behind' })
  })
})
