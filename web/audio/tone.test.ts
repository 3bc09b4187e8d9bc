import { expect, it, vi } from 'vitest'
import { LOUDEST, QUIET_LOUDNESS as QUIET } from '#contracts'
import { playTone } from './tone'

function fakeContext() {
  const gain = {
    setValueAtTime: vi.fn(),
    linearRampToValueAtTime: vi.fn(),
    cancelScheduledValues: vi.fn(),
  }
  const oscillator = {
    frequency: { value: 0 },
    setPeriodicWave: vi.fn(),
    connect: (node: unknown) => node,
    start: vi.fn(),
    stop: vi.fn(),
  }
  const context = {
    currentTime: 1,
    destination: {},
    createOscillator: () => oscillator,
    createGain: () => ({ gain, connect: vi.fn() }),
    createPeriodicWave: vi.fn(),
  }
  return { context: context as unknown as AudioContext, gain, oscillator }
}

it('sounds the pitch asked for, fades in and out, and ends', () => {
  const { context, gain, oscillator } = fakeContext()
  const tone = playTone(context, 659.26, QUIET)
  expect(oscillator.frequency.value).toBe(659.26)
  expect(gain.setValueAtTime).toHaveBeenCalledWith(0, 1)
  expect(gain.linearRampToValueAtTime.mock.calls[0]![0]).toBe(QUIET)
  tone.stop()
  expect(gain.linearRampToValueAtTime.mock.calls.at(-1)![0]).toBe(0)
  expect(oscillator.stop.mock.calls[0]![0]).toBeGreaterThan(1)
})

it('is quiet by default and never louder than its limit, whatever is stored', () => {
  expect(QUIET).toBeLessThan(0.1)
  const { context, gain } = fakeContext()
  playTone(context, 440, 50)
  expect(gain.linearRampToValueAtTime.mock.calls[0]![0]).toBe(LOUDEST)
})
