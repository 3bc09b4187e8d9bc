import { flushPromises } from '@vue/test-utils'
import { afterEach, expect, it, vi } from 'vitest'
import type { AuditEntry, AuditPage, Person } from '#contracts'
import { mounted, type Mounted } from '../mounting'
import { useSession } from '../stores/session'
import { fakeServer, freshStores, problem, signedIn, type Sent } from '../testing'
import PeoplePage from './PeoplePage.vue'
import ServerPage from './ServerPage.vue'

const person = (id: string, more: Partial<Person> = {}): Person => ({
  id,
  name: `Teacher ${id}`,
  email: `${id}@harbour.example`,
  role: 'teacher',
  isSelf: false,
  hasPassword: true,
  hasSecondFactor: false,
  seenAt: null,
  keyUntil: null,
  leftAt: null,
  ...more,
})
const entry = (id: string, more: Partial<AuditEntry> = {}): AuditEntry => ({
  id,
  at: '2026-11-28T09:41:00.000Z',
  deed: 'checks.create',
  userId: 'wren',
  by: 'Wren Tallow',
  studentId: 'orla',
  student: 'Orla Venn',
  subjectId: null,
  ...more,
})

let page: Mounted
let sent: Sent[]
async function people(
  role: 'owner' | 'teacher',
  trail: readonly AuditPage[] = [{ entries: [], hasMore: false }],
) {
  freshStores()
  signedIn()
  useSession().session!.user.role = role
  let pages = 0
  sent = fakeServer(({ method, path }) => {
    if (path.includes('/audit')) return { status: 200, body: trail[Math.min(pages++, trail.length - 1)] }
    if (method === 'PATCH') return problem(409, 'last_owner', 'Make somebody else an owner first.')
    if (path.endsWith('/key'))
      return {
        status: 200,
        body: { email: 'wren@harbour.example', key: 'ABCD-EFGH', until: '2026-11-30T09:00:00.000Z' },
      }
    return { status: 200, body: [person('hester', { role: 'owner', isSelf: true }), person('wren')] }
  })
  page = await mounted(PeoplePage)
  await flushPromises()
}
afterEach(() => {
  page.wrapper.unmount()
  vi.unstubAllGlobals()
})

it('gives a key that is shown once, and says what the server refuses', async () => {
  await people('owner')
  ;(page.named('A key for Teacher wren') as HTMLElement).click()
  await flushPromises()
  expect(page.text()).toMatch(/A key for wren@harbour\.example.*ABCD-EFGH.*It opens once, until 30 Nov 2026/)
  // The key goes behind the #: no server is told of it.
  ;(page.named('Teacher wren has left') as HTMLElement).click()
  await flushPromises()
  expect(sent.find(({ method }) => method === 'PATCH')?.body).toEqual({ hasLeft: true })
  expect(page.text()).toContain('Make somebody else an owner first.')
})

it('tells who did what on which day, in words, and goes on to earlier pages from the last entry', async () => {
  await people('owner', [
    { entries: [entry('3'), entry('2', { deed: 'student.erased', by: null, student: null })], hasMore: true },
    { entries: [entry('1', { at: '2026-11-21T09:00:00.000Z', deed: 'students.read' })], hasMore: false },
  ])
  expect(page.text()).toMatch(
    /28 Nov 2026.*Wren Tallow kept a check, Orla Venn.*A student was erased, by the studio’s rule/,
  )
  await page.press('m')
  await flushPromises()
  expect(sent.at(-1)?.path).toMatch(/before=2/)
  expect(page.text()).toMatch(/21 Nov 2026.*Wren Tallow opened the file, Orla Venn/)
})

it('is an owner’s alone', async () => {
  await people('teacher')
  expect(sent).toEqual([])
  expect(page.text()).toMatch(/Owners of the studio let people in/)
})

it('shows whoever runs the server what wants doing', async () => {
  freshStores()
  signedIn()
  useSession().session!.isOperator = true
  fakeServer({
    status: 200,
    body: {
      version: '1.0.0',
      since: '2026-11-28T09:00:00.000Z',
      database: { isUp: true, version: '10.11', nodes: 3, isReady: true, lastMigration: '0017-trust' },
      queue: { using: 1, waiting: 12, trail: 0 },
      routes: [{ route: 'checks.create', count: 40, p95Ms: 61.4, failed: 2 }],
      counts: null,
      backup: null,
      drill: {
        at: '2026-11-01T00:00:00.000Z',
        isSound: false,
        steps: [{ isSound: false, said: 'it was cut' }],
      },
    },
  })
  page = await mounted(ServerPage)
  await flushPromises()
  expect(page.text()).toMatch(/3 nodes.*checks\.create ?61 ms ?40 ?2.*Not sound: it was cut/)
  const heeded = [...document.querySelectorAll('.heeded')].map((one) => one.getAttribute('aria-label'))
  expect(heeded).toEqual(['Waiting', 'Backup', 'Drill'])
})
