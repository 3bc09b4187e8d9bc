import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { effectScope, type EffectScope } from 'vue'
import type { PlayerParts } from './tone'
import { usePlayer } from './usePlayer'
import { useReferenceTone } from './useReferenceTone'

let scope: EffectScope
let player: ReturnType<typeof usePlayer>
let heard: { hz: number; atMs: number; stoppedMs?: number }[]
/** A browser that takes a moment before it lets a page sound. */
const context = {
  resume: () => Promise.resolve(),
  close: () => Promise.resolve(),
} as unknown as AudioContext
const parts: PlayerParts = {
  newContext: () => context,
  play: (_context, hz) => {
    const note: (typeof heard)[number] = { hz, atMs: performance.now() }
    heard.push(note)
    return { stop: () => (note.stoppedMs ??= performance.now()) }
  },
}

beforeEach(() => {
  vi.useFakeTimers()
  heard = []
  scope = effectScope()
  player = scope.run(() => usePlayer(parts))!
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

it('runs one loop however often it is started, and none once it is stopped before the sound came', async () => {
  await Promise.all([player.start(line(true)), player.start(line(true))])
  vi.advanceTimersByTime(1700)
  expect(heard.map((n) => Math.round(n.hz))).toEqual([440, 880, 660, 440])
  const stopped = player.start(line(true))
  player.stop()
  await stopped
  vi.advanceTimersByTime(5000)
  expect(heard).toHaveLength(4)
  expect(heard.every((n) => n.stoppedMs !== undefined)).toBe(true)
})

it('sounds one reference tone, though two are pressed before the first is there', async () => {
  const tone = scope.run(() => useReferenceTone(parts))!
  await Promise.all([tone.toggle('A4', 0), tone.toggle('E5', 702)])
  expect([tone.sounding.value, heard.map((n) => Math.round(n.hz))]).toEqual(['E5', [660]])
  await tone.toggle('E5', 702)
  await Promise.all([tone.toggle('A4', 0), tone.toggle('A4', 0)])
  expect([tone.sounding.value, heard.length]).toEqual([undefined, 1])
  expect(heard[0]!.stoppedMs).toBeDefined()
})
