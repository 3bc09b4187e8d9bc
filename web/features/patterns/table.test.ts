import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { mounted, type Mounted } from '../../mounting'
import PatternsPage from '../../pages/PatternsPage.vue'
import ShiftsPage from '../../pages/ShiftsPage.vue'
import { useLesson } from '../../stores/lesson'
import { useBench } from '../../stores/bench'
import { known, A_STUDENT, fakeServer, freshStores, until } from '../../testing'

beforeEach(() => {
  sessionStorage.clear()
  localStorage.clear()
  fakeServer({ status: 200, body: [] })
  freshStores()
  vi.stubGlobal('requestAnimationFrame', (run: FrameRequestCallback) => setTimeout(() => run(0), 0))
})

let page: Mounted
// A page that stays goes on taking keys.
afterEach(() => page.wrapper.unmount())

async function atlasPage() {
  page = await mounted(PatternsPage)
  await until(() => expect(document.querySelectorAll('[role="grid"]')).toHaveLength(2))
  return page
}
const chosen = () =>
  [...document.querySelectorAll('[aria-selected="true"]')].map((cell) => cell.getAttribute('aria-label'))

describe('the atlas on the page', () => {
  it('has one cell in both tables, and goes from cell to cell by keys', async () => {
    const { press, text } = await atlasPage()
    expect(chosen()).toEqual([
      'D, D string: 1 E, 2 F♯, 3 G, 4 A; 2 and 3 touch',
      '1st, D string: 1 E, 2 F♯, 3 G, 4 A; 2 and 3 touch',
    ])
    await press('ArrowDown')
    await press('ArrowRight')
    expect(chosen()[0]).toBe('A, A string: 1 B, 2 C♯, 3 D, 4 E; 2 and 3 touch')
    await press('.')
    await until(() => expect(chosen()[1]).toMatch(/^2nd, A string/))
    await until(() => expect(chosen()[0]).toMatch(/^A, A string: 1 C♯/))
    expect(text()).toContain('second position · A string')
  })

  it('is one stop of the Tab key in each table, and the focus goes with the cell that the arrows move', async () => {
    const { press } = await atlasPage()
    const stops = () =>
      [...document.querySelectorAll('[role="grid"]')].map(
        (grid) => grid.querySelectorAll('[tabindex="0"]').length,
      )
    expect(stops()).toEqual([1, 1])
    const cell = document.querySelector<HTMLElement>('[role="grid"] [tabindex="0"]')!
    cell.focus()
    await press('ArrowDown', cell)
    await until(() => expect(document.activeElement?.getAttribute('aria-label')).toMatch(/^A, D string/))
    await press('ArrowRight', document.activeElement!)
    await until(() => expect(document.activeElement?.getAttribute('aria-label')).toMatch(/^A, A string/))
    expect(stops()).toEqual([1, 1])
  })

  it('takes a click on a cell, or on the name of its row', async () => {
    await atlasPage()
    const cell = document.querySelector<HTMLElement>('[aria-label^="G, E string"]')!
    cell.click()
    await nextTick()
    expect(chosen()[0]).toMatch(/^G, E string/)
    document.querySelector<HTMLElement>('[data-row="third"] th')!.click()
    await nextTick()
    expect(chosen()[1]).toMatch(/^3rd, E string/)
  })

  it('says what changes from one key to another', async () => {
    const { press, text } = await atlasPage()
    await press('c')
    await press('ArrowUp')
    expect(text()).toContain('From D major to G major')
    expect(text()).toContain('2 fingers on 2 strings.')
    expect(text()).toMatch(/A string: 2 from C♯ to C, 1\d\.\d mm towards the nut/)
    await press('c')
    expect(text()).not.toContain('From D major')
  })

  it('says that a typical length is from memory, and a measured one gives its own places', async () => {
    const { text } = await atlasPage()
    expect(text()).toContain('typical violin 4/4 of 328 mm, from memory')
    known({ students: [A_STUDENT] })
    useLesson().begin(A_STUDENT.id)
    await nextTick()
    expect(useBench().stringing.lengthMm).toBe(284.5)
    expect(text()).not.toContain('Drawn for a typical')
  })
})

describe('a shift on the page', () => {
  it('tells how far the guide travels, on and off a note of the key', async () => {
    page = await mounted(ShiftsPage)
    const { text, press } = page
    expect(text()).toContain('1 guides: it slides lightly on the D string')
    expect(text()).toContain('mm towards the bridge')
    // Off a note of the key a finger guides all the same.
    for (let i = 0; i < 4; i++) await press(',')
    expect(text()).toContain('15.6 mm')
    expect(text()).toContain('it guides without sounding')
  })
})
