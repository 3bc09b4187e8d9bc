import { describe, expect, it } from 'vitest'
import { HumWatch } from './hum'

const HOP_S = 0.0116

/** What is known after so long of this pitch and level; `swing` of either moves it evenly up and down. */
function humOf(hz: number, lastsS: number, { swingCents = 0, swingDb = 0 } = {}) {
  const watch = new HumWatch()
  let mayBeHum = false
  for (let atS = 0; atS < lastsS; atS += HOP_S) {
    const swing = Math.sin(2 * Math.PI * 4 * atS) * Math.SQRT2
    watch.push({
      atS,
      frequencyHz: hz * 2 ** ((swingCents * swing) / 1200),
      sigmaCents: 0.2,
      confidence: 0.95,
      levelDb: -50 + swingDb * swing,
      brightDb: -60,
      stiffness: 0,
      otherHz: null,
    })
    mayBeHum ||= watch.mayBeHum
  }
  return { humHz: watch.humHz, mayBeHum }
}

describe('a hum of the mains', () => {
  it.each([50, 60, 100, 150, 180, 240])(
    'at %d Hz is known before a second is over, and no take begins meanwhile',
    (hz) => {
      expect(humOf(hz, 0.9)).toEqual({ humHz: hz, mayBeHum: true })
      expect(humOf(hz, 0.5).humHz).toBeUndefined()
    },
  )

  it('is no string: not even a bass’s G, 35 cents from it, nor anything that a bow holds', () => {
    expect(humOf(49, 3)).toEqual({ humHz: undefined, mayBeHum: false })
    // Nine cents off the mains are still theirs, fifteen are not.
    expect(humOf(50 * 2 ** (9 / 1200), 1).humHz).toBe(50)
    expect(humOf(50 * 2 ** (15 / 1200), 1).humHz).toBeUndefined()
    expect(humOf(50, 3, { swingCents: 2.4 }).humHz).toBe(50)
    expect(humOf(50, 3, { swingCents: 3.6 }).humHz).toBeUndefined()
    expect(humOf(50, 3, { swingDb: 0.8 }).humHz).toBe(50)
    expect(humOf(50, 3, { swingDb: 1.25 }).humHz).toBeUndefined()
  })
})
