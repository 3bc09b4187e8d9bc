import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import jsQR from 'jsqr'
import { nextTick } from 'vue'
import type { OpenSession } from '#contracts'
import { mounted, type Mounted } from '../mounting'
import { useNotices } from '../stores/notices'
import { useSession } from '../stores/session'
import { fakeServer, freshStores, problem, signedIn, until, type Reply, type Sent } from '../testing'
import AccountPage from './AccountPage.vue'
import SignInPage from './SignInPage.vue'

const open = (id: string, more: Partial<OpenSession> = {}): OpenSession => ({
  id,
  device: 'computer',
  since: '2026-11-07T09:00:00.000Z',
  seenAt: '2026-11-28T09:41:00.000Z',
  endsAt: '2027-03-07T09:00:00.000Z',
  isThis: false,
  ...more,
})
const SESSIONS = [open('this', { isThis: true }), open('other', { device: 'tablet' })]

/** What the server says to a page that only looks. */
function kept(path: string): unknown {
  if (path.endsWith('/room')) return { addresses: ['https://192.0.2.7:4747'], hasAuthority: true }
  return path.endsWith('/second-factor') ? { since: null, spareCodes: 0 } : SESSIONS
}

let page: Mounted
let sent: Sent[]
async function account(answer: (request: Sent) => Reply | undefined = () => undefined) {
  freshStores()
  signedIn()
  sent = fakeServer(
    (request) =>
      answer(request) ??
      (request.method === 'GET' ? { status: 200, body: kept(request.path) } : { status: 204 }),
  )
  page = await mounted(AccountPage)
  await flushPromises()
  return page
}
const type = (label: string | RegExp, text: string) => fillIn(page.named(label) as HTMLInputElement, text)
const fill = (of: string, text: string) => fillIn(document.querySelector<HTMLInputElement>(of)!, text)
async function fillIn(field: HTMLInputElement, text: string) {
  field.value = text
  field.dispatchEvent(new Event('input'))
  await nextTick()
}
const submit = async () => {
  document.querySelector('form')!.dispatchEvent(new Event('submit', { cancelable: true }))
  await flushPromises()
}

beforeEach(() => localStorage.clear())
afterEach(() => {
  page.wrapper.unmount()
  vi.unstubAllGlobals()
})

describe('a second factor', () => {
  it.each([
    [null, ['/api/v1/second-factor']],
    ['2026-11-01T09:00:00.000Z', []],
  ])(
    'is begun by whoever is faster than the answer how it stands, and never ended unread (%s)',
    async (since, changed) => {
      freshStores()
      signedIn()
      sent = fakeServer(({ method, path }) => ({
        status: 200,
        body:
          method !== 'GET'
            ? { secret: 'JBSW', uri: 'otpauth://totp/x' }
            : path.endsWith('/second-factor')
              ? { since, spareCodes: 3 }
              : kept(path),
      }))
      // The page's own question is still on its way when Enter is pressed.
      const { fetch: answered } = globalThis
      let isFirst = true
      vi.stubGlobal('fetch', (path: string, init: RequestInit) => {
        const isLate = isFirst && path.endsWith('/second-factor')
        if (isLate) isFirst = false
        return isLate ? new Promise(() => {}) : answered(path, init)
      })
      page = await mounted(AccountPage)
      await flushPromises()
      await type('Your password', 'ferry steps')
      page.named('Begin a second factor').dispatchEvent(new Event('submit', { cancelable: true }))
      await flushPromises()
      expect(sent.filter((s) => s.method !== 'GET').map((s) => s.path)).toEqual(changed)
    },
  )
})

describe('where one is signed in', () => {
  it('is told by device and day, and ended one by one or all but this', async () => {
    const { named, press, text } = await account()
    expect(text()).toMatch(/A computer.*this one.*A tablet.*28 Nov 2026, .*End it/)
    ;(named(/End the session .* on a tablet/) as HTMLElement).click()
    await flushPromises()
    await press('e')
    await flushPromises()
    expect(sent.filter((s) => s.method === 'DELETE').map((s) => s.path)).toEqual([
      '/api/v1/sessions/other',
      '/api/v1/sessions',
    ])
  })
})

it('a tablet is told where the server is, as a code that a camera reads, and what it must trust first', async () => {
  const { named, text } = await account()
  await until(() => expect(document.querySelector('svg.qr path')).not.toBeNull())
  expect(text()).toMatch(/https:\/\/192\.0\.2\.7:4747\/authority\.crt/)
  const code = named('Code for a camera: https://192.0.2.7:4747')
  // Drawn on pixels, four to a module, and read back by another library.
  const scale = 4
  const [, , width = 0] = code.getAttribute('viewBox')!.split(' ').map(Number)
  const side = width * scale
  const pixels = new Uint8ClampedArray(side * side * 4).fill(255)
  for (const [, x, y] of code
    .querySelector('path')!
    .getAttribute('d')!
    .matchAll(/M(\d+) (\d+)h1v1h-1z/g))
    for (let i = 0; i < scale * scale; i++) {
      const [column, row] = [
        (Number(x) + 4) * scale + (i % scale),
        (Number(y) + 4) * scale + Math.floor(i / scale),
      ]
      pixels.fill(0, 4 * (row * side + column), 4 * (row * side + column) + 3)
    }
  expect(jsQR(pixels, side, side)?.data).toBe('https://192.0.2.7:4747')
})

describe('a new password', () => {
  it('is asked for with the old one, which is forgotten on the page once it is changed', async () => {
    await account()
    await type('The password you have now', 'ferry-steps-at-noon')
    await type(/^The new one/, 'ferry steps at midnight')
    await submit()
    expect(sent.find((s) => s.method === 'PATCH')).toMatchObject({
      path: '/api/v1/password',
      body: { current: 'ferry-steps-at-noon', next: 'ferry steps at midnight' },
    })
    expect(useNotices().notices.at(-1)?.text).toBe('The password is changed.')
    expect((page.named('The password you have now') as HTMLInputElement).value).toBe('')
  })

  it('that is refused says why beside its field, and keeps what was typed', async () => {
    const fields = [{ path: 'current', message: 'This is not your password.' }]
    const refusal = { ...problem(422, 'invalid_request') }
    await account(({ method }) =>
      method === 'PATCH' ? { status: 422, body: { ...refusal.body, fields } } : undefined,
    )
    await type('The password you have now', 'not it')
    await type(/^The new one/, 'ferry steps at midnight')
    await submit()
    expect(page.text()).toContain('This is not your password.')
    expect((page.named(/^The new one/) as HTMLInputElement).value).toBe('ferry steps at midnight')
  })

  it('is slowed with a word when guessed too often', async () => {
    await account(({ method }) =>
      method === 'PATCH' ? problem(429, 'too_many_attempts', 'Wait 10 minutes, then try again.') : undefined,
    )
    await type('The password you have now', 'not it')
    await type(/^The new one/, 'ferry steps at midnight')
    await submit()
    expect(page.text()).toContain('Wait 10 minutes, then try again.')
  })
})

describe('the sign-in page', () => {
  const DEMO = { email: 'teacher@port-ellery.example', password: 'lantern-round' }
  async function door(demo: typeof DEMO | null, at = '/sign-in') {
    freshStores()
    sent = fakeServer(({ method }) =>
      method === 'GET'
        ? { status: 200, body: { session: null, demo } }
        : { status: 200, body: { user: { id: 'hester' }, studio: { system: 'fifths' }, csrfToken: 'x' } },
    )
    page = await mounted(SignInPage, {}, at)
    await flushPromises()
    return page
  }

  it('signs in to the demo studio by one button, where its key hangs at the door', async () => {
    const { named, router } = await door(DEMO)
    ;(named('Look round the demo studio') as HTMLElement).click()
    await flushPromises()
    expect(sent.find((s) => s.method === 'POST')?.body).toEqual(DEMO)
    expect(router.currentRoute.value.path).toBe('/')
    expect(useSession().session?.user.id).toBe('hester')
  })

  it('asks for the code of a second factor with what was typed kept, and sends all three', async () => {
    let asked = 0
    freshStores()
    sent = fakeServer(({ method }) =>
      method === 'GET'
        ? { status: 200, body: { session: null, demo: null } }
        : asked++ === 0
          ? problem(401, 'code_needed')
          : { status: 200, body: { user: { id: 'hester' }, studio: {}, csrfToken: 'x' } },
    )
    page = await mounted(SignInPage)
    await flushPromises()
    await fill('[type=email]', 'hester@harbour.example')
    await fill('[type=password]', 'ferry steps')
    await submit()
    expect(document.activeElement).toBe(document.querySelector('[autocomplete=one-time-code]'))
    await fill('[autocomplete=one-time-code]', '287082')
    await submit()
    const typed = { email: 'hester@harbour.example', password: 'ferry steps' }
    expect(sent.filter((s) => s.method === 'POST').map((s) => s.body)).toEqual([
      typed,
      { ...typed, code: '287082' },
    ])
  })

  it('takes a key out of its link, and out of the address at once', async () => {
    await door(null, '/sign-in#email=wren%40harbour.example&key=ABCD-EFGH')
    expect(page.router.currentRoute.value.hash).toBe('')
    await fill('[autocomplete=new-password]', 'ferry steps at midnight')
    await submit()
    const body = { email: 'wren@harbour.example', key: 'ABCD-EFGH', password: 'ferry steps at midnight' }
    expect(sent.at(-1)).toMatchObject({
      method: 'POST',
      path: expect.stringMatching(/\/key$/) as string,
      body,
    })
  })

  it('offers no demo elsewhere', async () => {
    const { text } = await door(null)
    expect(text()).not.toContain('demo')
  })
})
