import { beforeEach, describe, expect, it } from 'vitest'
import { effectScope, nextTick, ref } from 'vue'
import { hiddenCasesFor, seededSource, type PlayerLevel } from '#core'
import { strung } from '../../../core/testing'
import { mounted } from '../../mounting'
import { freshStores, signedIn } from '../../testing'
import EyePage from '../../pages/EyePage.vue'
import { CASE_NAMES } from '../../words/cases'
import { useEyeTrainer } from './useEyeTrainer'

beforeEach(() => {
  localStorage.clear()
  freshStores()
  signedIn()
})

describe('a trainer of the eye', () => {
  const trainer = (seed: number, userId = 'hester') =>
    effectScope().run(() =>
      useEyeTrainer(ref(strung('violin', 328)), ref<PlayerLevel>('trained'), userId, seededSource(seed)),
    )!

  it('counts the first word on each hand, by its kind, and what the tool said', async () => {
    const eye = trainer(5)
    const first = eye.hidden.value!
    const wrong = eye.options.value.find((id) => id !== first.id)!
    eye.name(wrong)
    eye.name(first.id)
    expect(eye.scores.value[first.id]).toEqual({ asked: 1, right: 0, tool: first.isNamed ? 1 : 0 })
    eye.next()
    expect(eye.answer.value).toBeUndefined()
    eye.name(eye.hidden.value!.id)
    expect(eye.total.value).toMatchObject({ asked: 2, right: 1 })
    await nextTick()
    expect(trainer(9).total.value.asked).toBe(2)
    expect(trainer(9, 'somebody else').total.value.asked).toBe(0)
    eye.forgetScores()
    expect(eye.total.value.asked).toBe(0)
  })

  it('hides every kind in the long run, and another hand each time', () => {
    const eye = trainer(3)
    const seen = new Set<string>()
    for (let i = 0; i < 60; i++) {
      seen.add(eye.hidden.value!.id)
      eye.next()
    }
    expect(seen).toEqual(new Set(hiddenCasesFor('violin')))
  })
})

describe('its page', () => {
  it('is gone through by keys, and tells nothing before the hand is named', async () => {
    const page = await mounted(EyePage)
    expect(page.text()).not.toMatch(/cents (sharp|flat)|The tool says/)
    await page.press('ArrowDown')
    await page.press('Enter')
    expect(page.text()).toContain('The tool says')
    expect(page.text()).toMatch(/Rightly seen|It was: /)
    const said = page.text()
    expect(Object.values(CASE_NAMES).some((name) => said.includes(name))).toBe(true)
    await page.press('Enter')
    expect(page.text()).not.toContain('The tool says')
    expect(page.text()).toMatch(/Named rightly so far.*All\s?1/)
    page.wrapper.unmount()
  })
})
