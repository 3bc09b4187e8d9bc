import { flushPromises } from '@vue/test-utils'
import { expect, it } from 'vitest'
import { effectScope, ref } from 'vue'
import { useLoaded } from './useLoaded'

/** Questions that are answered when the test says so. */
function opened(first: string | undefined) {
  const id = ref(first)
  const asked: { readonly id: string; answer(value: string): void; fail(): void }[] = []
  const fetch = (of: string) =>
    new Promise<string>((resolve, reject) => {
      asked.push({ id: of, answer: resolve, fail: () => reject(new Error(`no ${of}`)) })
    })
  const loaded = effectScope().run(() => useLoaded(() => id.value, fetch))!
  return { id, asked, ...loaded }
}

it('shows the answer of the id that is looked at, whichever comes last', async () => {
  const { id, asked, data } = opened('orla')
  id.value = 'finn'
  await flushPromises()
  asked[1]!.answer('Finn')
  await flushPromises()
  asked[0]!.answer('Orla')
  await flushPromises()
  expect([asked.map((a) => a.id), data.value]).toEqual([['orla', 'finn'], 'Finn'])
  id.value = undefined
  await flushPromises()
  expect(data.value).toBeUndefined()
})

it('keeps what was saved over an answer that was asked for before', async () => {
  const { asked, data, reload, put } = opened('orla')
  asked[0]!.answer('as it was')
  await flushPromises()
  const again = reload()
  expect(data.value).toBe('as it was')
  put('as it was saved')
  asked[1]!.answer('as it was')
  await again
  expect(data.value).toBe('as it was saved')
})

it('says a failure of the newest question, and swallows that of an older one', async () => {
  const { asked, data, reload } = opened('orla')
  const [older, newest] = [reload(), reload()]
  asked[1]!.fail()
  await expect(older).resolves.toBeUndefined()
  asked[2]!.fail()
  await expect(newest).rejects.toThrow('no orla')
  asked[0]!.fail()
  await flushPromises()
  expect(data.value).toBeUndefined()
})
