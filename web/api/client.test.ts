import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { CSRF_HEADER, IDEMPOTENCY_HEADER } from '#contracts'
import { A_STUDENT, fakeServer, problem } from '../testing'
import { ApiProblem, call, setCsrfToken } from './client'

const lend = { params: { studentId: A_STUDENT.id }, body: { instrumentId: null, on: '2026-11-28' } }

beforeEach(() => setCsrfToken('token of the session'))
afterEach(() => void vi.unstubAllGlobals())

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
    await call('checks.list', { params: { studentId: '../secret' }, query: {} })
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
    fakeServer({ status: 422, body: { ...problem(422, 'invalid_request', 'Because.').body, fields } })
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
