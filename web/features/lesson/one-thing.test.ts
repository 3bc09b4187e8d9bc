import { expect, it, vi } from 'vitest'
import { A_STUDENT, fakeServer, freshStores, known, signedIn } from '../../testing'
import { mounted } from '../../mounting'
import { useNotices } from '../../stores/notices'
import OneThing from './OneThing.vue'

const workingOn = { checkId: 'c1', workOn: 'Elbow', since: '2026-11-14T09:00:00Z' }

it('says what was agreed and since when; Mended ends it, and can be taken back', async () => {
  const student = { ...A_STUDENT, workingOn }
  const sent = fakeServer(({ method }) => ({ status: 200, body: method === 'GET' ? student : {} }))
  freshStores()
  signedIn()
  known({ students: [student] })
  const { text, named } = await mounted(OneThing, { student })
  expect(text()).toMatch(/To work on, since 14 Nov( 2026)?: ?Elbow/)
  ;(named('Mended') as HTMLElement).click()
  await vi.waitFor(() => expect(useNotices().notices.at(-1)?.text).toBe('Mended: Elbow.'))
  expect(sent[0]).toMatchObject({
    path: expect.stringMatching(/checks\/c1\/work$/) as string,
    body: { isMended: true },
  })
  await useNotices().notices.at(-1)?.action?.run()
  await vi.waitFor(() =>
    expect(sent.filter(({ method }) => method === 'PATCH').at(-1)?.body).toEqual({ isMended: false }),
  )
})

it('is nothing where nothing is agreed', async () => {
  freshStores()
  const { text } = await mounted(OneThing, { student: A_STUDENT })
  expect(text()).toBe('')
})
