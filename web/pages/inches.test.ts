import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import type { Component } from 'vue'
import type { HandMeasurement } from '#contracts'
import BoardRuler from '../board/BoardRuler.vue'
import GrowthChart from '../features/students/GrowthChart.vue'
import { mounted } from '../mounting'
import { useBench } from '../stores/bench'
import { useLesson } from '../stores/lesson'
import { A_STUDENT, AN_INSTRUMENT, fakeServer, freshStores, known, lists, signedIn } from '../testing'
import { showAs } from '../words/shown'
import CheckPage from './CheckPage.vue'
import FramePage from './FramePage.vue'
import InstrumentPage from './InstrumentPage.vue'
import InstrumentsPage from './InstrumentsPage.vue'
import LayPage from './LayPage.vue'
import PatternsPage from './PatternsPage.vue'
import SetupPage from './SetupPage.vue'
import ShiftsPage from './ShiftsPage.vue'
import StudentsPage from './StudentsPage.vue'
import TapesPage from './TapesPage.vue'

const PLAYER = { ...A_STUDENT, instrument: AN_INSTRUMENT }

beforeEach(() => {
  localStorage.clear()
  sessionStorage.clear()
  freshStores()
})
afterEach(() => {
  vi.unstubAllGlobals()
  showAs({ lengthUnit: 'mm', noteNames: 'letters' })
})

it.each<[string, Component, object?]>([
  ['Tapes', TapesPage],
  ['laying', LayPage],
  ['Check', CheckPage],
  ['Setup', SetupPage],
  ['Patterns', PatternsPage],
  ['Frame and fit', FramePage],
  ['Shifts', ShiftsPage],
  ['Students', StudentsPage],
  ['Instruments', InstrumentsPage],
  ['an instrument', InstrumentPage, { instrumentId: AN_INSTRUMENT.id }],
])('%s speaks of inches alone where the studio does', async (_, room, props = {}) => {
  fakeServer(lists({ students: [PLAYER], instruments: [AN_INSTRUMENT] }))
  signedIn('hester', 'fifths', { lengthUnit: 'in' })
  known({ students: [PLAYER] })
  useLesson().begin(PLAYER.id)
  useBench().setup.pressingMode = 'typical'
  const page = await mounted(room, props as Record<string, unknown>)
  await flushPromises()
  expect(page.text()).not.toMatch(/\d ?mm\b|, mm\b|\bin mm\b|millim/)
  page.wrapper.unmount()
})

it('a ruler has the marks of its unit, numbered as on a rule', async () => {
  const scale = { pxPerMm: 4, fromMm: 0, reachMm: 110, along: (mm: number) => 20 + 4 * mm }
  const read = async (lengthUnit: 'mm' | 'cm' | 'in') => {
    showAs({ lengthUnit, noteNames: 'letters' })
    const page = await mounted(BoardRuler, { scale, y: 0, isFlipped: false })
    const texts = [...page.wrapper.element.querySelectorAll('text')].map((text) => text.textContent.trim())
    const marks = page.wrapper.element.querySelectorAll('line').length
    page.wrapper.unmount()
    return [marks, ...texts]
  }
  // 110 mm are 4.33 inches: 69 sixteenths and nought
  expect(await read('in')).toEqual([70, '0', '1/2', '1', '1 1/2', '2', '2 1/2', '3', '3 1/2', 'in'])
  expect((await read('cm')).slice(0, 4)).toEqual([111, '0', '1', '2'])
  expect((await read('mm')).slice(0, 4)).toEqual([111, '0', '10', '20'])
})

it('a chart rules round values of the unit', async () => {
  showAs({ lengthUnit: 'in', noteNames: 'letters' })
  const hand = (id: string, measuredOn: string, comfortableSpanMm: number) =>
    ({ id, measuredOn, comfortableSpanMm, reachedSpanMm: null }) as HandMeasurement
  const page = await mounted(GrowthChart, {
    history: [hand('a', '2025-01-01', 50.8), hand('b', '2026-01-01', 63.5)],
    growth: { outcome: 'too_few', count: 2, needed: 4 },
    wantedMm: undefined,
    wantedName: '',
  })
  expect(page.text()).toContain('over time, in')
  const values = [...document.querySelectorAll('text')].map((text) => Number(text.textContent))
  expect(values).toContain(2)
  expect(values.filter((value) => value > 3)).toEqual([])
  page.wrapper.unmount()
})
