import { flushPromises } from '@vue/test-utils'
import { beforeEach, expect, it } from 'vitest'
import { nextTick } from 'vue'
import { mounted, type Mounted } from '../mounting'
import { bareSetup, useBench } from '../stores/bench'
import { useLesson } from '../stores/lesson'
import { A_STUDENT, fakeServer, freshStores, known, lists } from '../testing'
import TapesPage from './TapesPage.vue'

let page: Mounted
beforeEach(() => {
  sessionStorage.clear()
  freshStores()
  fakeServer(lists({}))
})

const field = () => page.named('String length, nut to bridge') as HTMLInputElement
const shown = () => document.querySelector('[role="tab"][aria-selected="true"]')?.textContent

it('has a key for every tab, for laying, printing and comparing, from inside the length', async () => {
  useBench().setup = { ...bareSetup('violin'), lengthText: '' }
  page = await mounted(TapesPage)
  await flushPromises()
  expect(document.activeElement).toBe(field())
  field().value = '328'
  field().dispatchEvent(new Event('input'))
  await nextTick()
  field().setSelectionRange(3, 3)
  for (const [key, tab] of [
    ['r', 'Ring and fit'],
    ['b', 'String by string'],
    ['s', 'Systems'],
    ['u', 'Cutting'],
    ['e', 'Places'],
  ] as const) {
    await page.press(key, field())
    expect(shown()).toContain(tab)
  }
  expect(field().value).toBe('328')
  await page.press('y', field())
  await flushPromises()
  expect(page.router.currentRoute.value.name).toBe('lay')
  // m may still become 328 mm: it is the field's, and Escape comes before it
  await page.press('m', field())
  expect(page.router.currentRoute.value.name).toBe('lay')
  await page.press('Escape', field())
  expect(document.activeElement).not.toBe(field())
  await page.press('m')
  await flushPromises()
  expect(page.router.currentRoute.value.name).toBe('compare')
})

it('leaves the cursor to the page where the string is measured, and compares from the instrument that lies there', async () => {
  known({ students: [A_STUDENT] })
  useLesson().begin(A_STUDENT.id)
  page = await mounted(TapesPage)
  await flushPromises()
  expect([field().value, document.activeElement === field()]).toEqual(['284.5', false])
  ;(page.named(/^Compare/) as HTMLElement).click()
  await flushPromises()
  expect(page.router.currentRoute.value.query).toEqual({ from: A_STUDENT.instrument!.id })
})
