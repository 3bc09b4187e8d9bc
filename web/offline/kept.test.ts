import { describe, expect, it } from 'vitest'
import { inOrder, isEndOfSession, isKeptAddress } from './kept'

const ID = '01a233a2-2463-718b-8e68-901a75b0e4cf'

describe('what lies on a device', () => {
  it.each([
    '/lessons',
    '/students',
    `/students/${ID}`,
    `/students/${ID}/checks`,
    '/studio',
    '/door',
    `/instruments/${ID}`,
  ])('is what a lesson reads: %s', (path) => expect(isKeptAddress(`/api/v1${path}`)).toBe(true))

  it.each([
    ['recorded sound', `/api/v1/attachments/${ID}`],
    ['the track of a take', `/api/v1/checks/${ID}/track`],
    ['who is signed in where', '/api/v1/sessions'],
    ['how the server is', '/api/v1/health'],
    ['the server’s numbers', '/api/metrics'],
    ['what only begins alike', `/api/v1/students/${ID}/checks/${ID}`],
    ['the page', '/students'],
  ])('is not %s', (_what, path) => expect(isKeptAddress(path)).toBe(false))

  it('answers the same question in another order', () => {
    const [one, other] = ['q=&sort=label&limit=50', 'limit=50&sort=label&q=']
    const at = (query: string) => inOrder(`http://desk.example/api/v1/instruments?${query}`)
    expect(at(one)).toBe(at(other))
    expect(at('q=a')).not.toBe(at('q=b'))
  })

  it.each([
    [401, '/api/v1/students', {}, true],
    [200, '/api/v1/door', { session: null }, true],
    [200, '/api/v1/door', { session: { user: {} } }, false],
    [200, '/api/v1/students', { session: null }, false],
    [503, '/api/v1/door', {}, false],
  ])('is forgotten once nobody is signed in: %i from %s with %j is %s', async (status, path, body, isEnd) => {
    const answer = new Response(JSON.stringify(body), { status })
    expect(await isEndOfSession(answer, `http://desk.example${path}`)).toBe(isEnd)
    expect(await answer.json()).toEqual(body)
  })
})
