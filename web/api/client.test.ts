import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { CSRF_HEADER, IDEMPOTENCY_HEADER } from '#contracts'
import { A_STUDENT, fakeServer } from '../testing'
import { ApiProblem, call, callUntilAnswered, setCsrfToken } from './client'

const problem = (status: number, code: string) => ({
  status,
  body: { status, code, title: 'No', detail: 'Because.' },
})
const lend = { params: { studentId: A_STUDENT.id }, body: { instrumentId: null, on: '2026-11-28' } }

beforeEach(() => setCsrfToken('token of the session'))
afterEach(() => {
  vi.unstubAllGlobals()
  vi.useRealTimers()
})

describe('a request', () => {
  it('goes to the address of its contract, with what a change needs', async () => {
    const sent = fakeServer({ status: 200, body: A_STUDENT })
    expect(await call('students.lend', lend)).toEqual(A_STUDENT)
    expect(sent[0]).toMatchObject({
      method: 'POST',
      path: `/api/v1/students/${A_STUDENT.id}/loans`,
      body: lend.body,
    })
    expect(sent[0]?.headers[CSRF_HEADER]).toBe('token of the session')
    expect(sent[0]?.headers[IDEMPOTENCY_HEADER]).toMatch(/^[0-9a-f-]{36}$/)
  })

  it('that only reads carries neither token nor key, and escapes what it puts into an address', async () => {
    const sent = fakeServer({ status: 200, body: [] })
    await call('students.list', { query: { q: 'נועה & co' } })
    await call('checks.list', { params: { studentId: '../secret' } })
    expect(sent[0]?.path).toBe(`/api/v1/students?${new URLSearchParams({ q: 'נועה & co' }).toString()}`)
    expect(sent[1]?.path).toBe('/api/v1/students/..%2Fsecret/checks')
    expect(Object.keys(sent[0]?.headers ?? {})).toEqual([])
  })

  it('gives null for an answer without content', async () => {
    fakeServer({ status: 204 })
    expect(await call('session.close', {})).toBeNull()
  })

  it('throws what the server said, field by field', async () => {
    const fields = [{ path: 'name', message: 'Give the name.' }]
    fakeServer({ status: 422, body: { ...problem(422, 'invalid_request').body, fields } })
    const error = await call('students.lend', lend).catch((e: unknown) => e)
    expect(error).toBeInstanceOf(ApiProblem)
    const said = error as ApiProblem
    expect([said.code, said.message, said.isPassing]).toEqual(['invalid_request', 'Because.', false])
    expect([said.field('name'), said.field('note')]).toEqual(['Give the name.', undefined])
  })

  it('tells a server that is away from one that answers in no known way', async () => {
    fakeServer(undefined, { status: 502 })
    for (let i = 0; i < 2; i++)
      expect(await call('session.read', {}).catch((e: unknown) => e)).toMatchObject({
        code: 'unreachable',
        isPassing: true,
      })
  })
})

describe('a save that has to arrive', () => {
  const options = { idempotencyKey: 'one key for all', isWanted: () => true }

  it('is sent again with its key while the server or its database is away, then gives the answer', async () => {
    vi.useFakeTimers()
    const sent = fakeServer(undefined, problem(503, 'database_unavailable'), { status: 200, body: A_STUDENT })
    const onWaiting = vi.fn()
    const answer = callUntilAnswered('students.lend', lend, { ...options, onWaiting })
    await vi.runAllTimersAsync()
    expect(await answer).toEqual(A_STUDENT)
    expect(onWaiting).toHaveBeenCalledTimes(2)
    expect(sent.map((s) => s.headers[IDEMPOTENCY_HEADER])).toEqual(Array(3).fill('one key for all'))
  })

  it('is not sent again when it was refused', async () => {
    const sent = fakeServer(problem(422, 'invalid_request'))
    await expect(
      callUntilAnswered('students.lend', lend, { ...options, onWaiting: () => {} }),
    ).rejects.toMatchObject({ code: 'invalid_request' })
    expect(sent).toHaveLength(1)
  })

  it('is given up when nobody wants it any more', async () => {
    const sent = fakeServer(undefined)
    const giveUp = { ...options, isWanted: () => false, onWaiting: () => {} }
    await expect(callUntilAnswered('students.lend', lend, giveUp)).rejects.toMatchObject({
      code: 'unreachable',
    })
    expect(sent).toHaveLength(1)
  })
})
