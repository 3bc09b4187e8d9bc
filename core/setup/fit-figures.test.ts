import { describe, expect, it } from 'vitest'
import {
  bodyFitDoubts,
  bodyFitFigures,
  BODY_FIT_LIMITS,
  bodyFitParts,
  NO_BODY_FIT,
  type BodyFitPart,
} from './index'
import { FAMILY_IDS } from '../instrument'

const tagsOf = (family: (typeof FAMILY_IDS)[number], fit: object) =>
  bodyFitFigures(family, { ...NO_BODY_FIT, ...fit }).flatMap(({ figure }) =>
    figure.parts.flatMap((part) => (part.kind === 'tag' ? [part] : [])),
  )

describe('the drawing of a fit', () => {
  it('has each number on it that was measured, once, in its unit, and none that was not', () => {
    for (const family of FAMILY_IDS) {
      expect(tagsOf(family, {})).toEqual([])
      for (const part of bodyFitParts(family)) {
        // A bass’s and a cello’s thumb alike: what a family does not draw it does not measure.
        const [least, most] = BODY_FIT_LIMITS[part]
        const value = Math.round((least + most) / 2) + 1
        const tags = tagsOf(family, { [part]: value })
        expect(
          tags.map((tag) => tag.value),
          `${family} ${part}`,
        ).toEqual([value])
        expect(tags[0]?.unit).toBe(
          part === 'handsOff' ? 'times' : part === 'bodyAngle' || part === 'lean' ? 'degrees' : 'mm',
        )
      }
    }
  })

  it('keeps every number within its picture, at the largest and the smallest that is possible', () => {
    for (const family of FAMILY_IDS)
      for (const end of [0, 1] as const) {
        const fit = Object.fromEntries(bodyFitParts(family).map((part) => [part, BODY_FIT_LIMITS[part][end]]))
        for (const { figure } of bodyFitFigures(family, { ...NO_BODY_FIT, ...fit }))
          for (const part of figure.parts)
            if (part.kind === 'tag') {
              expect(part.at.x).toBeGreaterThan(figure.x)
              expect(part.at.x).toBeLessThan(figure.x + figure.width)
              expect(part.at.y).toBeGreaterThan(figure.y)
              expect(part.at.y).toBeLessThan(figure.y + figure.height)
            }
      }
  })

  it('shows every part of a family in one of its drawings', () => {
    for (const family of FAMILY_IDS) {
      const shown = bodyFitFigures(family, NO_BODY_FIT).flatMap(({ parts }) => parts)
      expect([...shown].sort()).toEqual([...bodyFitParts(family)].sort())
    }
  })

  it('sets the endpin and the seat where they were measured', () => {
    const pathsOf = (fit: object) =>
      JSON.stringify(bodyFitFigures('cello', { ...NO_BODY_FIT, ...fit })[0]?.figure.parts)
    expect(pathsOf({ endpinMm: 200 })).not.toBe(pathsOf({ endpinMm: 400 }))
    expect(pathsOf({ seatMm: 300 })).not.toBe(pathsOf({ seatMm: 480 }))
  })
})

describe('doubts about a fit', () => {
  it.each<[Partial<Record<BodyFitPart, number>>, string[]]>([
    [{ restNearMm: 30, restFarMm: 55 }, []],
    [{ restNearMm: 30, restFarMm: 56 }, ['steep_rest']],
    [{ restFarMm: 90 }, []],
    [{ handsOff: 5 }, []],
    [{ handsOff: 4 }, ['falls']],
    [{ bodyAngle: 19 }, ['too_far_front']],
    [{ bodyAngle: 71 }, ['too_far_out']],
  ])('of %j are %j', (fit, doubts) => {
    expect(bodyFitDoubts('viola', { ...NO_BODY_FIT, ...fit })).toEqual(doubts)
  })

  it('never tell a bassist of a shoulder rest', () => {
    expect(bodyFitDoubts('bass', { ...NO_BODY_FIT, handsOff: 1, bodyAngle: 5 })).toEqual([])
  })
})
