import { beforeEach, describe, expect, it } from 'vitest'
import { arrangedItems, FAMILY_IDS, isDrawnItem, setupFigure, USUAL_SCHOOLS, type Figure } from '#core'
import { freshStores } from '../testing'
import { mounted } from '../mounting'
import { captionOf } from '../words/figure'
import { showAs } from '../words/shown'
import FigureView from './FigureView.vue'
import SetupPicture from './SetupPicture.vue'

beforeEach(() => {
  freshStores()
  showAs({ lengthUnit: 'mm', noteNames: 'letters' })
})

const gap = (side: 'right' | 'wrong') =>
  setupFigure('gap', { side, family: 'violin', schools: USUAL_SCHOOLS })

describe('a drawing', () => {
  it('shows its part of the plane, and every outline twice: the ink, and the colour on it', async () => {
    const figure = gap('right')
    await mounted(FigureView, { figure, label: 'a gap' })
    const svg = document.querySelector('svg')!
    expect(svg.getAttribute('viewBox')).toBe(`${figure.x} ${figure.y} ${figure.width} ${figure.height}`)
    expect([svg.getAttribute('role'), svg.getAttribute('aria-label')]).toEqual(['img', 'a gap'])
    const outlines = figure.parts.flatMap((part) => (part.kind === 'body' ? part.outlines : []))
    expect(svg.querySelectorAll('.outline path')).toHaveLength(outlines.length)
    const patches = figure.parts.flatMap((part) => (part.kind === 'patch' ? part.outlines : []))
    expect(svg.querySelectorAll('g:not(.outline) > path')).toHaveLength(outlines.length + patches.length)
  })

  it('writes its numbers in the studio’s unit', async () => {
    const figure: Figure = {
      x: 0,
      y: 0,
      width: 100,
      height: 100,
      parts: [
        { kind: 'tag', at: { x: 50, y: 50 }, anchor: 'middle', value: 25.4, unit: 'mm' },
        { kind: 'tag', at: { x: 50, y: 60 }, anchor: 'middle', value: 12, unit: 'degrees' },
        { kind: 'tag', at: { x: 50, y: 70 }, anchor: 'middle', value: 4, unit: 'times' },
      ],
    }
    showAs({ lengthUnit: 'in', noteNames: 'letters' })
    await mounted(FigureView, { figure, label: 'numbers' })
    expect([...document.querySelectorAll('text')].map((text) => text.textContent)).toEqual([
      '1 in',
      '12°',
      '4 of 5',
    ])
  })

  it('says above itself what it shows: right, the usual wrong, or this hand', async () => {
    const page = await mounted(SetupPicture, { figure: gap('wrong'), tone: 'wrong' })
    expect(page.text()).toBe('Not thisno gap, 0 mm')
    expect(document.querySelector('svg')?.getAttribute('aria-label')).toBe('Not this: no gap, 0 mm')
  })
})

it('every item of every family is told apart by its caption alone', () => {
  for (const family of FAMILY_IDS)
    for (const { id } of arrangedItems(family)) {
      if (!isDrawnItem(id)) continue
      const asked = { family, schools: USUAL_SCHOOLS }
      const [right, wrong] = (['right', 'wrong'] as const).map((side) =>
        captionOf(setupFigure(id, { ...asked, side })),
      )
      expect(right, id).not.toBe(wrong)
      expect(right, id).not.toMatch(/undefined|NaN/)
    }
})
