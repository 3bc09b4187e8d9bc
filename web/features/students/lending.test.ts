import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import type { Instrument, Student } from '#contracts'
import { mounted, type Mounted } from '../../mounting'
import {
  A_HAND,
  A_STUDENT,
  AN_INSTRUMENT,
  fakeServer,
  freshStores,
  known,
  lists,
  signedIn,
  until,
} from '../../testing'
import LendDialog from './LendDialog.vue'

const violin = (label: string, sizeId: string, lengthMm?: number): Instrument => ({
  ...AN_INSTRUMENT,
  id: label,
  label,
  sizeId,
  measurement: lengthMm === undefined ? null : { ...AN_INSTRUMENT.measurement!, lengthMm },
})
/** A span of 62 mm at rest and 68 spread: a half violin asks for 63.2 (284.5 · (8/9 − 2/3)). */
const PLAYER: Student = { ...A_STUDENT, instrument: null, hand: A_HAND }
const CUPBOARD = [
  violin('no. 1', '4/4', 328),
  violin('no. 2', '1/2', 284.5),
  violin('no. 3', '1/4', 255),
  violin('no. 4', '1/4'),
  violin('no. 9', '1/32', 178),
  { ...violin('no. 5', '1/2', 285), holder: { studentId: 'x', name: 'Finn Aske' } },
]

let page: Mounted
async function opened(student: Student) {
  fakeServer(lists({ instruments: CUPBOARD }))
  freshStores()
  signedIn()
  known({ students: [student] })
  page = await mounted(LendDialog, { student, modelValue: true, 'onUpdate:modelValue': () => undefined })
  await until(() => expect(options().length).toBeGreaterThan(0))
}
const options = () =>
  [...document.querySelectorAll('[role="option"]')].map((o) => o.textContent?.trim() ?? '')
const chosen = () => document.querySelector('[aria-selected="true"]')?.textContent
const lent = () => page.wrapper.emitted('lend')?.flat()

beforeEach(() => sessionStorage.clear())
afterEach(() => vi.unstubAllGlobals())

it('offers what fits this hand best first, with length, size and how it fits, and lends it by one key', async () => {
  await opened(PLAYER)
  expect(options().map((o) => o.slice(0, 5))).toEqual(['no. 3', 'no. 4', 'no. 2'])
  expect(options()[0]).toMatch(/no\. 3¼255\.0 mm● Comfortable ?5\.3 mm to spare/)
  expect(options()[2]).toMatch(/no\. 2½284\.5 mm.*Reach back with 1 ?1\.2 mm short/)
  expect(options()[1]).toContain('not measured')
  const field = page.named('Find a free instrument')
  await page.press('ArrowDown', field)
  expect(chosen()).toContain('no. 4')
  await page.press('Enter', field)
  expect(lent()).toEqual(['no. 4'])
})

it('finds any other free one by its number, that one first', async () => {
  await opened(PLAYER)
  const field = page.named('Find a free instrument') as HTMLInputElement
  field.value = 'no. 1'
  field.dispatchEvent(new Event('input'))
  await until(() => expect(options().join()).toMatch(/^no\. 1/))
  await page.press('Enter', field)
  await nextTick()
  expect(lent()).toEqual(['no. 1'])
})

it('says who has the one that was asked for, and hands out no other in its place', async () => {
  await opened(PLAYER)
  const field = page.named('Find a free instrument') as HTMLInputElement
  field.value = 'No. 5'
  field.dispatchEvent(new Event('input'))
  await until(() => expect(page.text()).toContain('no. 5 is with Finn Aske.'))
  expect(options()).toEqual([])
  await page.press('Enter', field)
  await nextTick()
  expect(lent()).toBeUndefined()
})

it('lends by Enter what was typed, and not what stood there before it was found', async () => {
  await opened(PLAYER)
  const field = page.named('Find a free instrument') as HTMLInputElement
  field.value = 'no. 9'
  field.dispatchEvent(new Event('input'))
  await nextTick()
  await page.press('Enter', field)
  expect(lent()).toBeUndefined()
  await until(() => expect(lent()).toEqual(['no. 9']))
})

it('takes an Enter back that another letter followed', async () => {
  await opened(PLAYER)
  const field = page.named('Find a free instrument') as HTMLInputElement
  for (const typed of ['no. 9', 'no. 1']) {
    field.value = typed
    field.dispatchEvent(new Event('input'))
    await nextTick()
    if (typed === 'no. 9') await page.press('Enter', field)
  }
  await until(() => expect(options()[0]).toMatch(/^no\. 1/))
  expect(lent()).toBeUndefined()
})

it('offers every size where nobody has measured the hand, and says what a measure would tell', async () => {
  await opened({ ...PLAYER, hand: null })
  await flushPromises()
  expect(options()).toHaveLength(5)
  expect(page.text()).toContain('The hand is not measured')
})
