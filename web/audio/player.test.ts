// @vitest-environment happy-dom
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { effectScope, type EffectScope } from 'vue'
import { usePlayer } from './usePlayer'

let scope: EffectScope
let player: ReturnType<typeof usePlayer>
let heard: { hz: number; atMs: number; stoppedMs?: number }[]

beforeEach(() => {
  vi.useFakeTimers()
  heard = []
  scope = effectScope()
  const context = {
    resume: () => Promise.resolve(),
    close: () => Promise.resolve(),
  } as unknown as AudioContext
  player = scope.run(() =>
    usePlayer({
      newContext: () => context,
      play: (_context, hz) => {
        const note: (typeof heard)[number] = { hz, atMs: performance.now() }
        heard.push(note)
        return { stop: () => (note.stoppedMs ??= performance.now()) }
      },
    }),
  )!
})
afterEach(() => {
  scope.stop()
  vi.useRealTimers()
})

const line = (isLoop: boolean) => () => ({ centsAboveA4: [0, 1200, 702], noteMs: 500, isLoop })

it('plays each pitch in tempo, tells which one sounds, and is silent at the end', async () => {
  await player.start(line(false))
  expect(player.at.value).toBe(0)
  vi.advanceTimersByTime(500)
  expect(player.at.value).toBe(1)
  vi.advanceTimersByTime(2000)
  expect(player.at.value).toBeUndefined()
  expect(heard.map((n) => Math.round(n.hz))).toEqual([440, 880, 660])
  expect(heard[2]!.atMs - heard[0]!.atMs).toBeCloseTo(1000, 0)
  for (const note of heard) expect(note.stoppedMs! - note.atMs).toBeLessThan(500)
})

it('begins again at the end of a loop until it is stopped', async () => {
  await player.start(line(true))
  vi.advanceTimersByTime(1700)
  expect(player.at.value).toBe(0)
  player.stop()
  vi.advanceTimersByTime(5000)
  expect(heard).toHaveLength(4)
  expect(player.at.value).toBeUndefined()
})

it('follows a tempo and a tuning that change while it plays', async () => {
  let noteMs = 1000
  let cents = 0
  await player.start(() => ({ centsAboveA4: [cents, cents], noteMs, isLoop: true }))
  noteMs = 250
  cents = -1200
  vi.advanceTimersByTime(1000 + 250)
  expect(heard.map((n) => n.hz)).toEqual([440, 220, 220])
  expect(heard[2]!.atMs - heard[1]!.atMs).toBeCloseTo(250, 0)
})
