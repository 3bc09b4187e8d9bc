import { beforeEach, describe, expect, it } from 'vitest'
import { note } from '#core'
import { strung } from '../../core/testing'
import { mounted } from '../mounting'
import StringBoard from './StringBoard.vue'

const stringing = strung('violin', 328)
const tape = (id: string, middleMm: number) => ({
  id,
  label: id,
  nearEdgeMm: middleMm - 1.5,
  middleMm,
  farEdgeMm: middleMm + 1.5,
})
const target = (finger: 1 | 3, placeMm: number) => ({ stringIndex: 1, finger, placeMm, note: 'E4' })

function board(props: Record<string, unknown> = {}) {
  return mounted(StringBoard, {
    stringing,
    label: 'Fingerboard',
    tapes: [tape('1', 36.44), tape('3', 82)],
    targets: [target(1, 36.44), target(3, 82)],
    showPlaces: true,
    ...props,
  })
}

beforeEach(() => {
  localStorage.clear()
  sessionStorage.clear()
})

describe('the board under the keys', () => {
  it('tells place, cents and note, goes from mark to mark, and stays on the board', async () => {
    const { named, press, text } = await board()
    const slider = named(/Place on the/)
    slider.dispatchEvent(new FocusEvent('focus'))
    await press('Home', slider)
    for (let i = 0; i < 3; i++) await press('ArrowRight', slider)
    expect(text()).toContain('1.5 mm')
    await press('PageUp', slider)
    expect(text()).toContain('36.4 mm')
    expect(text()).toContain('204 cents above') // 9:8, published
    await press('PageUp', slider)
    expect(slider.getAttribute('aria-valuenow')).toBe('82')
    await press('Home', slider)
    await press('ArrowLeft', slider)
    expect(slider.getAttribute('aria-valuenow')).toBe('0')
    await press('End', slider)
    await press('ArrowRight', slider)
    expect(slider.getAttribute('aria-valuenow')).toBe(slider.getAttribute('aria-valuemax'))
  })

  it('changes the string with the arrows, as the strings lie', async () => {
    const { named, press } = await board({ activeString: 1 })
    const slider = named(/Place on the/)
    slider.dispatchEvent(new FocusEvent('focus'))
    await press('ArrowUp', slider)
    expect(slider.getAttribute('aria-label')).toContain('the A string')
    for (let i = 0; i < 3; i++) await press('ArrowDown', slider)
    expect(slider.getAttribute('aria-label')).toContain('the G string')
  })
})

describe('what is drawn', () => {
  const labels = () => [...document.querySelectorAll('svg text')].map((t) => t.textContent?.trim() ?? '')

  it('has every tape at its place and every string by its name', async () => {
    await board()
    expect(labels()).toEqual(expect.arrayContaining(['36.4 mm', '82.0 mm', 'G', 'D', 'A', 'E']))
    expect(document.querySelectorAll('svg polygon')).toHaveLength(3) // the board and two tapes
  })

  it('writes both places where two tapes all but touch, and drops the unit where it is tight', async () => {
    await board({ tapes: [tape('low 4', 97), tape('high 3', 98), tape('4', 60)] })
    const places = labels().filter((text) => /^\d+\.\d( mm)?$/.test(text))
    expect(places.filter((p) => /^9[78]/.test(p))).toEqual(['97.0', '98.0'])
  })

  it('lays the tapes of another instrument over it as outlines', async () => {
    await board({ tapes: [tape('1', 36.4)], ghosts: [tape('1', 31.6)] })
    expect(labels()).toContain('31.6')
    expect(document.querySelectorAll('svg rect').length).toBeGreaterThan(1)
  })

  it('is turned round for who faces the player, and remembers it', async () => {
    const first = await board()
    const nutX = () => Number(document.querySelector('svg rect')!.getAttribute('x'))
    const before = nutX()
    ;(first.named('Facing') as HTMLElement).click()
    await first.wrapper.vm.$nextTick()
    expect(nutX()).toBeGreaterThan(before)
    await board()
    expect(nutX()).toBeGreaterThan(before)
  })

  it('draws five and six strings as well as four', async () => {
    const tuning = [...stringing.tuning, note('B5')]
    await board({ stringing: strung('violin', 328, undefined, { tuning }) })
    expect(labels()).toContain('B')
  })
})

describe('a hand on the board', () => {
  const finger = (n: 1 | 2 | 3 | 4, placeMm: number, more = {}) => ({
    stringIndex: 1,
    finger: n,
    placeMm,
    note: 'E',
    widthMm: 14,
    isResting: false,
    isMarked: false,
    isPale: false,
    ...more,
  })
  const ellipses = () => [...document.querySelectorAll<SVGEllipseElement>('svg ellipse')]
  const numberOf = (element: Element, name: string) => Number(element.getAttribute(name))

  it('draws fingertips as broad as they are, and what two of them would share', async () => {
    await board({ tapes: [], targets: [], fingers: [finger(2, 60), finger(3, 70)], canTurn: true })
    const tips = ellipses().filter((e) => e.classList.contains('tip'))
    const [overlap] = ellipses().filter((e) => e.classList.contains('overlap'))
    const apart = numberOf(tips[1]!, 'cx') - numberOf(tips[0]!, 'cx')
    // Ten millimetres between the places, fourteen across a fingertip: four are shared.
    expect((2 * numberOf(tips[0]!, 'rx')) / apart).toBeCloseTo(1.4, 2)
    expect((2 * numberOf(overlap!, 'rx')) / apart).toBeCloseTo(0.4, 2)
  })

  it('shares nothing where there is room, or between fingers of other strings', async () => {
    await board({
      tapes: [],
      targets: [],
      fingers: [finger(1, 30), finger(2, 60), finger(3, 62, { stringIndex: 2, isPale: true })],
    })
    expect(ellipses().filter((e) => e.classList.contains('overlap'))).toHaveLength(0)
  })

  it('names note and place of the string looked at, and not of the pale ones', async () => {
    const { text } = await board({
      tapes: [],
      targets: [],
      fingers: [finger(1, 36.44), finger(2, 65.2, { isPale: true, note: 'X' })],
    })
    expect(text()).toContain('E 36.4')
    expect(text()).not.toContain('X 65.2')
  })

  it('stands on end for a cello, and its arrows go along the strings then', async () => {
    const { named, press } = await board({ canTurn: true, isUprightFirst: true, activeString: 1 })
    expect(document.querySelector('svg')!.classList.contains('upright')).toBe(true)
    const slider = named(/Place on the/)
    slider.dispatchEvent(new FocusEvent('focus'))
    await press('Home', slider)
    for (let i = 0; i < 4; i++) await press('ArrowDown', slider)
    expect(slider.getAttribute('aria-valuenow')).toBe('2')
    await press('ArrowRight', slider)
    expect(slider.getAttribute('aria-label')).toContain('the A string')
    ;(named('Upright') as HTMLElement).click()
    await press('Home', slider)
    expect(document.querySelector('svg')!.classList.contains('upright')).toBe(false)
  })
})
