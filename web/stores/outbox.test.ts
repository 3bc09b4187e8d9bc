import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { IDEMPOTENCY_HEADER } from '#contracts'
import { ApiProblem } from '../api/client'
import { AN_INSTRUMENT, A_STUDENT, fakeServer, freshStores, problem, signedIn, type Reply } from '../testing'
import { useDrafts } from './drafts'
import { useNotices } from './notices'
import { useOutbox, Withdrawn } from './outbox'

const AWAY = problem(503, 'database_unavailable')
const OK: Reply = { status: 200, body: A_STUDENT }
const lend = (on: string) => ({
  params: { studentId: A_STUDENT.id },
  body: { instrumentId: AN_INSTRUMENT.id, on },
})

/** A page of a teacher who is signed in, in front of a server that answers like this. */
function page(...replies: Reply[]) {
  const sent = fakeServer(...replies)
  freshStores()
  signedIn()
  const outbox = useOutbox()
  outbox.resume()
  return {
    outbox,
    sent,
    send: (on: string, draft?: string) =>
      outbox.send('students.lend', lend(on), { what: `a loan on ${on}`, ...(draft ? { draft } : {}) }),
  }
}
const keys = (sent: ReturnType<typeof fakeServer>) => sent.map((s) => s.headers[IDEMPOTENCY_HEADER])
const bodies = (sent: ReturnType<typeof fakeServer>) => sent.map((s) => (s.body as { on: string }).on)
/** Saves that this browser still keeps. */
const kept = () => Object.keys(localStorage).filter((name) => name.startsWith('jadefell.outbox.'))
const reason = (error: unknown) => error
const texts = () => useNotices().notices.map((notice) => notice.text)

beforeEach(() => {
  localStorage.clear()
  vi.useFakeTimers()
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('a save', () => {
  it('is sent again with its key while the server or its database is away, then gives the answer', async () => {
    const { outbox, send, sent } = page(undefined, AWAY, OK)
    const answer = send('2026-11-28')
    await vi.advanceTimersByTimeAsync(100)
    expect([outbox.isAway, outbox.waiting.length]).toEqual([true, 1])
    await vi.runAllTimersAsync()
    expect(await answer).toEqual(A_STUDENT)
    expect(new Set(keys(sent)).size).toBe(1)
    expect(sent).toHaveLength(3)
    expect([outbox.isAway, outbox.waiting.length, kept()]).toEqual([false, 0, []])
  })

  it('waits on a full disk as it does for a server that is away, and knows which', async () => {
    const { outbox, send } = page(problem(507, 'disk_full'), OK)
    const answer = send('2026-11-28')
    await vi.advanceTimersByTimeAsync(100)
    expect([outbox.isAway, outbox.awayBecause, outbox.waiting.length]).toEqual([true, 'disk_full', 1])
    await vi.runAllTimersAsync()
    expect(await answer).toEqual(A_STUDENT)
  })

  it('that this browser has no room for is told of, held in the page, and written once there is room', async () => {
    const { outbox, send, sent } = page(AWAY, AWAY, AWAY, OK)
    const roomy = localStorage
    vi.stubGlobal('localStorage', {
      setItem() {
        throw new DOMException('full', 'QuotaExceededError')
      },
      removeItem: (name: string) => roomy.removeItem(name),
      getItem: (name: string) => roomy.getItem(name),
    })
    const answer = send('2026-11-28')
    await vi.advanceTimersByTimeAsync(100)
    expect(outbox.isLoose).toBe(true)
    const closing = new Event('beforeunload', { cancelable: true })
    window.dispatchEvent(closing)
    expect(closing.defaultPrevented).toBe(true)
    vi.stubGlobal('localStorage', roomy)
    expect(kept()).toEqual([])
    await vi.advanceTimersByTimeAsync(2000)
    expect([outbox.isLoose, kept().length]).toEqual([false, 1])
    await vi.runAllTimersAsync()
    expect(await answer).toEqual(A_STUDENT)
    expect(new Set(keys(sent)).size).toBe(1)
    const later = new Event('beforeunload', { cancelable: true })
    window.dispatchEvent(later)
    expect(later.defaultPrevented).toBe(false)
  })

  it('waits for those before it', async () => {
    const { send, sent } = page(AWAY, AWAY, OK)
    const all = Promise.all(['2026-11-01', '2026-11-02', '2026-11-03'].map((on) => send(on)))
    await vi.runAllTimersAsync()
    await all
    expect(bodies(sent)).toEqual(['2026-11-01', '2026-11-01', '2026-11-01', '2026-11-02', '2026-11-03'])
  })

  it('that is refused is thrown to whoever waits for it, and those after it are sent', async () => {
    const { outbox, send, sent } = page(problem(422, 'invalid_request', 'No such day.'), OK)
    const first = send('2026-02-30').catch(reason)
    await send('2026-11-28')
    expect(await first).toBeInstanceOf(ApiProblem)
    expect(sent).toHaveLength(2)
    expect([outbox.refused, outbox.waiting, kept()]).toEqual([[], [], []])
  })

  it('can be taken back as long as the server does not have it', async () => {
    const { outbox, send, sent } = page(AWAY)
    const answer = send('2026-11-28', 'sheet').catch(reason)
    await vi.advanceTimersByTimeAsync(100)
    expect(outbox.isSending('sheet')).toBe(true)
    outbox.withdraw('sheet')
    expect(await answer).toBeInstanceOf(Withdrawn)
    await vi.runAllTimersAsync()
    expect(sent).toHaveLength(1)
    expect([outbox.isSending('sheet'), kept()]).toEqual([false, []])
  })
})

describe('after a reload', () => {
  it('what waits is sent in order with its keys, once, and said', async () => {
    const before = page(AWAY)
    for (const on of ['2026-11-01', '2026-11-02', '2026-11-03']) void before.send(on).catch(reason)
    await vi.advanceTimersByTimeAsync(100)
    const listener = vi.fn()
    const after = page(OK)
    after.outbox.onArrival(listener)
    await flushPromises()
    expect(bodies(after.sent)).toEqual(['2026-11-01', '2026-11-02', '2026-11-03'])
    expect(keys(after.sent)[0]).toBe(keys(before.sent)[0])
    expect(after.outbox.waiting).toEqual([])
    expect(texts()).toContain('Sent at last: a loan on 2026-11-03.')
    expect(listener).toHaveBeenCalledTimes(3)
    expect(page(OK).sent).toEqual([])
  })

  it('what is refused stays to be read, and is tried again or thrown away', async () => {
    void page(AWAY).send('2026-11-28').catch(reason)
    await vi.advanceTimersByTimeAsync(100)
    const { outbox, sent } = page(problem(409, 'instrument_lent', 'Somebody else has it.'), OK)
    await flushPromises()
    expect(outbox.refused).toMatchObject([{ what: 'a loan on 2026-11-28', refusal: 'Somebody else has it.' }])
    expect(kept()).toHaveLength(1)
    outbox.tryAgain(outbox.refused[0]!.id)
    await flushPromises()
    expect([sent.length, outbox.refused.length, kept()]).toEqual([2, 0, []])
  })

  it('nobody sends or sees what somebody else kept on this device', async () => {
    void page(AWAY).send('2026-11-28').catch(reason)
    await vi.advanceTimersByTimeAsync(100)
    const sent = fakeServer(OK)
    freshStores()
    signedIn('another teacher')
    const outbox = useOutbox()
    outbox.resume()
    await flushPromises()
    expect([sent, outbox.waiting, outbox.refused]).toEqual([[], [], []])
    signedIn()
    outbox.resume()
    await flushPromises()
    expect(sent).toHaveLength(1)
  })

  it('what ended with the session is sent once somebody has signed in again', async () => {
    const { outbox, send, sent } = page(problem(401, 'not_signed_in'), OK)
    expect(await send('2026-11-28').catch(reason)).toMatchObject({ code: 'not_signed_in' })
    expect(outbox.waiting).toHaveLength(1)
    outbox.resume()
    await flushPromises()
    expect(new Set(keys(sent)).size).toBe(1)
    expect(outbox.waiting).toEqual([])
  })
})

describe('what two pages left', () => {
  /** As another page of this browser kept it. */
  const leave = (id: string, at: number, draft: string | null = null) =>
    localStorage.setItem(
      `jadefell.outbox.${id}`,
      JSON.stringify({
        version: 1,
        id,
        at,
        userId: 'hester',
        route: 'students.lend',
        input: lend(`2026-11-0${at}`),
        what: id,
        draft,
      }),
    )

  it('is sent in the order in which it was made, whichever page made it, and what is known already once', async () => {
    for (const [id, at] of [
      ['late', 3],
      ['early', 1],
      ['middle', 2],
    ] as const)
      leave(id, at)
    const { outbox, sent } = page(AWAY, OK)
    outbox.resume()
    await vi.runAllTimersAsync()
    expect(keys(sent)).toEqual(['early', 'early', 'middle', 'late'])
  })

  it('is taken back by its draft alone, and who no longer listens is not told', async () => {
    leave('kept', 1, 'other')
    leave('taken', 2, 'sheet')
    const { outbox, sent } = page(AWAY, OK)
    const listener = vi.fn()
    const stop = outbox.onArrival(listener)
    await vi.advanceTimersByTimeAsync(100)
    expect([outbox.isSending('sheet'), outbox.isSending('a third')]).toEqual([true, false])
    outbox.withdraw('sheet')
    await vi.runAllTimersAsync()
    expect(keys(sent)).toEqual(['kept', 'kept'])
    expect(listener).toHaveBeenCalledOnce()
    stop()
    leave('last', 3)
    outbox.resume()
    await vi.runAllTimersAsync()
    expect(sent).toHaveLength(3)
    expect(listener).toHaveBeenCalledOnce()
  })

  it('and was refused is tried again or thrown away one by one', async () => {
    for (const [id, at] of [
      ['one', 1],
      ['two', 2],
    ] as const)
      leave(id, at)
    localStorage.setItem('jadefell.outbox.torn', '{')
    const { outbox, sent } = page(
      problem(409, 'instrument_lent', 'Somebody else has it.'),
      problem(409, 'instrument_lent'),
      OK,
    )
    await vi.runAllTimersAsync()
    expect(outbox.refused.map(({ id }) => id)).toEqual(['one', 'two'])
    outbox.tryAgain('nobody')
    outbox.throwAway('one')
    expect([outbox.refused.map(({ id }) => id), outbox.unreadable]).toEqual([['two'], ['torn']])
    outbox.throwAway('torn')
    outbox.tryAgain('two')
    await vi.runAllTimersAsync()
    expect([keys(sent), outbox.refused, outbox.unreadable, kept()]).toEqual([
      ['one', 'two', 'two'],
      [],
      [],
      [],
    ])
  })

  it('waits until somebody has signed in, and a page that is closed sends nothing more', async () => {
    leave('mine', 1)
    const sent = fakeServer(AWAY, OK)
    freshStores()
    const outbox = useOutbox()
    outbox.resume()
    await flushPromises()
    expect([sent, outbox.waiting]).toEqual([[], []])
    signedIn()
    outbox.resume()
    await vi.advanceTimersByTimeAsync(100)
    outbox.$dispose()
    await vi.runAllTimersAsync()
    expect([sent.length, kept()]).toEqual([1, ['jadefell.outbox.mine']])
  })
})

describe('what another version of the page left', () => {
  it('in a form that this one cannot read is kept, told of, and goes only when it is thrown away', () => {
    localStorage.setItem('jadefell.outbox.new', JSON.stringify({ version: 2, id: 'new' }))
    localStorage.setItem('jadefell.outbox.torn', '{"version":1,"id":"to')
    localStorage.setItem(
      'jadefell.outbox.gone',
      JSON.stringify({ version: 1, id: 'gone', route: 'cats.create' }),
    )
    const { outbox, sent } = page(OK)
    expect([...outbox.unreadable].sort()).toEqual(['gone', 'new', 'torn'])
    expect([sent.length, kept().length]).toEqual([0, 3])
    outbox.throwAway('new')
    expect(kept().sort()).toEqual(['jadefell.outbox.gone', 'jadefell.outbox.torn'])
  })

  describe('beside a draft', () => {
    const sheet = `${A_STUDENT.id} A4 first`
    const body = {
      instrumentId: AN_INSTRUMENT.id,
      takenAt: '2026-11-28T09:41:00.000Z',
      string: 'A4',
      shapeId: 'first',
      system: 'fifths',
      readings: [{ finger: 1, shownCents: 5 }],
    }
    beforeEach(() => {
      const drafts = { [sheet]: { texts: { 1: '5' }, pending: { key: 'its key', body } } }
      localStorage.setItem('jadefell.drafts', JSON.stringify(drafts))
    })

    it('is sent with its key, in today’s words, and its sheet is cleared', async () => {
      const { sent } = page(OK)
      await flushPromises()
      expect(keys(sent)).toEqual(['its key'])
      expect(sent[0]?.path).toBe(`/api/v1/students/${A_STUDENT.id}/checks`)
      expect(sent[0]?.body).toMatchObject({ exercise: { kind: 'shape', string: 'A4', shapeId: 'first' } })
      expect(useDrafts().textsOf(sheet)).toEqual({})
    })

    it('that had arrived in the old words is kept already', async () => {
      const { outbox, sent } = page(problem(409, 'idempotency_key_reused'))
      await flushPromises()
      expect(sent).toHaveLength(1)
      expect([outbox.refused, outbox.waiting, useDrafts().textsOf(sheet)]).toEqual([[], [], {}])
    })
  })
})

describe('a draft', () => {
  it('is cleared when it arrives, unless it says something else by then', async () => {
    const { send } = page(OK)
    const drafts = useDrafts()
    drafts.type('a', '1', '5')
    drafts.type('b', '1', '7')
    for (const sheet of ['a', 'b']) drafts.markSent(sheet, lend('2026-11-28'))
    const both = Promise.all([send('2026-11-28', 'a'), send('2026-11-28', 'b')])
    drafts.type('b', '1', '8')
    await both
    expect([drafts.textsOf('a'), drafts.textsOf('b')]).toEqual([{}, { 1: '8' }])
  })
})
