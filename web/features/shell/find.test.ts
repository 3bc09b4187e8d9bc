import { flushPromises } from '@vue/test-utils'
import { afterEach, expect, it, vi } from 'vitest'
import { mounted } from '../../mounting'
import KeyFields from '../patterns/KeyFields.vue'
import { usePatterns } from '../patterns/usePatterns'
import { A_STUDENT, fakeServer, freshStores, known, lists, signedIn } from '../../testing'
import CommandPalette from './CommandPalette.vue'

afterEach(() => vi.unstubAllGlobals())

async function found(text: string) {
  fakeServer(lists({ students: [A_STUDENT] }))
  freshStores()
  signedIn()
  known({ students: [A_STUDENT] })
  const page = await mounted(CommandPalette, { modelValue: true })
  const field = page.named('Find a room, a student or an action') as HTMLInputElement
  field.value = text
  field.dispatchEvent(new Event('input'))
  await flushPromises()
  const titles = [...document.querySelectorAll('[role=option]')].map((row) => row.textContent.trim())
  await page.press('Enter', field)
  await flushPromises()
  return { titles, leadsTo: page.router.currentRoute.value }
}

it.each([
  ['pain', /^Mark pain/, 'setup'],
  ['lay tapes', /^Lay tapes/, 'tapes'],
  ['orla', /^Orla Venn/, 'student'],
])('finds “%s” by the word that somebody has for it', async (text, title, room) => {
  const { titles, leadsTo } = await found(text)
  expect(titles[0]).toMatch(title)
  expect(leadsTo.name).toBe(room)
})

it.each([
  ['Eb', /^E♭ major/, 'E♭ major'],
  ['f# harmonic minor', /^F♯ harmonic minor/, 'F♯ harmonic minor'],
])('finds the patterns of a key that is typed as “%s”', async (text, title, shown) => {
  const { titles, leadsTo } = await found(text)
  expect(titles).toEqual([expect.stringMatching(title)])
  expect([leadsTo.name, leadsTo.query]).toEqual(['patterns', { key: text }])
  const page = await mounted(KeyFields)
  await page.router.push(leadsTo.fullPath)
  await flushPromises()
  expect((page.named('Key') as HTMLInputElement).value).toBe(shown)
  expect(usePatterns().atlas.key.value.tonic.letter).toBe(shown[0])
  expect(page.router.currentRoute.value.query).toEqual({})
})
