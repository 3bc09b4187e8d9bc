import { describe, expect, it } from 'vitest'
import { landingOf } from './landing'
import type { VoicedFrame } from './voiced-frame'

const HOP_S = 0.0116

/** The landing of a note of `lastsS` whose pitch and level are these of the time since it began; about 440 Hz unless `cents` says. */
function landingIn(
  pitchAt: (atS: number) => number,
  {
    levelAt = () => -20,
    cents = 0,
    lastsS = 0.8,
    confidence = 1,
    vibratoHz,
  }: {
    readonly levelAt?: (atS: number) => number
    readonly cents?: number
    readonly lastsS?: number
    readonly confidence?: number
    readonly vibratoHz?: number
  } = {},
) {
  const frames = Array.from({ length: Math.round(lastsS / HOP_S) }, (_, i): VoicedFrame => {
    const atS = i * HOP_S
    const levelDb = levelAt(atS)
    return {
      atS,
      cents: cents + pitchAt(atS),
      sigmaCents: 0.2,
      confidence,
      levelDb,
      brightnessDb: 0,
      stiffness: 0,
    }
  })
  const { cents: landed, sigmaCents } = landingOf(
    frames,
    { cents, startS: 0, endS: lastsS, begins: 'freely', hopS: HOP_S },
    vibratoHz,
  )
  return { cents: landed - cents, sigmaCents }
}

describe('a landing', () => {
  it('is where the finger stands between the attack and the first moment an ear can mend it', () => {
    // A scoop of a recorded violin's size, gone within a twentieth of a second.
    expect(Math.abs(landingIn((t) => -40 * Math.exp(-t / 0.025)).cents)).toBeLessThan(1)
    /** Part of the landing that came before this moment: a small step there says so. */
    const before = (s: number) => -landingIn((t) => (t < s ? -5 : 0)).cents / 5
    expect(before(0.06)).toBeLessThan(0.03)
    expect(before(0.27)).toBeGreaterThan(0.97)
    // Where its weights rise and fall.
    expect(before(0.105)).toBeGreaterThan(0.05)
    expect(before(0.105)).toBeLessThan(0.22)
    expect(before(0.225)).toBeGreaterThan(0.78)
    expect(before(0.225)).toBeLessThan(0.92)
  })

  it('comes later on low strings, by some periods, and sooner in a short note', () => {
    const bass = { cents: -3900 }
    const before = (s: number, more: object) => -landingIn((t) => (t < s ? -5 : 0), more).cents / 5
    // Four periods of 46 Hz are 87 ms.
    expect(before(0.32, bass)).toBeGreaterThan(0.45)
    expect(before(0.32, bass)).toBeLessThan(0.75)
    expect(before(0.1, { lastsS: 0.16 })).toBeGreaterThan(0.3)
    expect(before(0.1, { lastsS: 0.8 })).toBeLessThan(0.06)
  })

  it('takes out the scoop of an attack by its known fall, slower on a low string, and is unsure of a part of it', () => {
    const scooping = (cents: number, fallsS: number) =>
      landingIn((t) => -40 * Math.exp(-t / fallsS), { cents })
    // Six periods of 46 Hz are 0.13 s, of 110 Hz 0.055.
    const bass = scooping(-3900, 0.13)
    expect(bass.cents).toBeGreaterThan(-1.48)
    expect(bass.cents).toBeLessThan(-1.24)
    expect(bass.sigmaCents).toBeGreaterThan(1.6)
    expect(bass.sigmaCents).toBeLessThan(2.4)
    expect(scooping(-2400, 0.055).cents).toBeGreaterThan(-1)
    expect(scooping(-2400, 0.055).cents).toBeLessThan(-0.4)
    expect(scooping(0, 0.04).cents).toBeGreaterThan(-1.1)
  })

  it('believes loud moments more than soft ones, and leaves strays out', () => {
    // Six decibels softer for its first half: a string that is not speaking yet.
    const speaking = landingIn((t) => (t < 0.165 ? -12 : 0), {
      levelAt: (t) => (t < 0.165 ? -26 : -20),
    }).cents
    expect(speaking).toBeGreaterThan(-1.6)
    expect(speaking).toBeLessThan(-1)
    const stray = landingIn((t) => (t > 0.13 && t < 0.16 ? 34 : 0)).cents
    expect(Math.abs(stray)).toBeLessThan(0.3)
    const near = landingIn((t) => (t > 0.13 && t < 0.16 ? 18 : 0)).cents
    expect(near).toBeGreaterThan(1)
  })

  it('is the middle of a swing, wherever in its turn that begins', () => {
    for (const phase of [0, 1.5, 3, 4.5]) {
      const swing = (t: number) => 15 * Math.sin(2 * Math.PI * 5.5 * t + phase)
      expect(Math.abs(landingIn(swing, { vibratoHz: 5.5 }).cents)).toBeLessThan(1.2)
    }
  })

  it('is known no better than its drift, and than what sounds beside it, let it', () => {
    expect(landingIn(() => 0).sigmaCents).toBeLessThan(0.4)
    const drifting = landingIn((t) => 100 * t).sigmaCents
    expect(drifting).toBeGreaterThan(2.5)
    expect(drifting).toBeLessThan(3.4)
    const inCompany = landingIn(() => 0, { confidence: 0.8 }).sigmaCents
    expect(inCompany).toBeGreaterThan(2.5)
    expect(inCompany).toBeLessThan(3.5)
  })
})
