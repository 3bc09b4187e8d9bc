import { afterEach, beforeEach, expect, it } from 'vitest'
import { effectScope, type EffectScope } from 'vue'
import { playClicks } from './click'
import { useCompanion, type CompanionParts } from './useCompanion'

let scope: EffectScope | undefined
let heard: { what: string; of: number; isStopped: boolean }[]
const sounds = (what: string) => (_: unknown, of: number) => {
  const one = { what, of, isStopped: false }
  heard.push(one)
  return { stop: () => void (one.isStopped = true) }
}
const parts = {
  newContext: () => ({ resume: () => Promise.resolve(), close: () => Promise.resolve() }) as AudioContext,
  playTone: sounds('tone'),
  playClicks: sounds('clicks'),
} as unknown as CompanionParts

function open() {
  scope = effectScope()
  return scope.run(() => useCompanion(parts))!
}
beforeEach(() => {
  localStorage.clear()
  heard = []
})
afterEach(() => scope?.stop())

it('is a drone at the pitch that is asked for, told to whoever listens; or clicks; or nothing', async () => {
  const { companion, tempo, start, stop } = open()
  expect(start(0)).toBeUndefined()
  companion.value = 'drone'
  // A fifth below A4 at 440 Hz, pure: 293.33 Hz.
  expect(start(-701.955)).toBeCloseTo(293.333, 2)
  await Promise.resolve()
  companion.value = 'click'
  tempo.value = 72
  expect(start(0)).toBeUndefined()
  await Promise.resolve()
  expect(heard.map(({ what, of }) => [what, Math.round(of)])).toEqual([
    ['tone', 293],
    ['clicks', 72],
  ])
  // Never two at once.
  expect(heard.map(({ isStopped }) => isStopped)).toEqual([true, false])
  stop()
  expect(heard.at(-1)!.isStopped).toBe(true)
})

it('that is stopped before the browser lets it sound stays silent, and the choice is remembered', async () => {
  const { companion, start, stop } = open()
  companion.value = 'drone'
  start(0)
  stop()
  await Promise.resolve()
  expect(heard).toEqual([])
  scope?.stop()
  await Promise.resolve()
  expect(open().companion.value).toBe('drone')
})

it('clicks once a beat with a hundredth of a second of noise, no louder than tones may be', () => {
  const gain = { gain: { value: 0 }, connect: () => undefined }
  const source = {
    buffer: undefined as unknown,
    loop: false,
    connect: () => gain,
    start: () => undefined,
    stop: () => undefined,
  }
  let samples = new Float32Array()
  const context = {
    sampleRate: 48_000,
    destination: {},
    createBuffer: (_: number, length: number) => ({
      getChannelData: () => (samples = new Float32Array(length)),
    }),
    createBufferSource: () => source,
    createGain: () => gain,
  } as unknown as BaseAudioContext
  playClicks(context, 120, 9)
  expect(source.loop).toBe(true)
  expect(samples).toHaveLength(24_000)
  expect(samples.findLastIndex((value) => value !== 0)).toBeLessThan(480)
  expect(gain.gain.value).toBeLessThanOrEqual(0.3)
})
