import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

interface Capturing {
  readonly port: { onmessage: ((event: { data: unknown }) => void) | null }
  process(inputs: Float32Array[][]): boolean
}

let Capture: new () => Capturing
beforeEach(async () => {
  vi.stubGlobal(
    'AudioWorkletProcessor',
    class {
      readonly port = { onmessage: null }
    },
  )
  vi.stubGlobal('registerProcessor', (name: string, processor: new () => Capturing) => {
    expect(name).toBe('capture')
    Capture = processor
  })
  vi.resetModules()
  await import('./capture.worklet')
})
afterEach(() => vi.unstubAllGlobals())

function capturing() {
  const capture = new Capture()
  const sent: Float32Array[] = []
  const open = () =>
    capture.port.onmessage?.({ data: { postMessage: (piece: Float32Array) => sent.push(piece) } })
  return { capture, sent, open }
}
const quantum = (value: number) => new Float32Array(128).fill(value)

describe('the audio thread', () => {
  it('gathers what sounds into pieces of 256, channels mixed to one, in order', () => {
    const { capture, sent, open } = capturing()
    open()
    for (let i = 0; i < 5; i++) expect(capture.process([[quantum(i), quantum(i + 2)]])).toBe(true)
    expect(sent.map((piece) => [piece.length, piece[0], piece[255]])).toEqual([
      [256, 1, 2],
      [256, 3, 4],
    ])
    // Each piece is its own: the one before is not written over.
    expect(sent[0]![0]).toBe(1)
  })

  it('goes on with silence when the sound is over, so that a take can end by itself', () => {
    const { capture, sent, open } = capturing()
    open()
    capture.process([[quantum(0.5)]])
    for (let i = 0; i < 3; i++) capture.process([[]])
    expect(sent.map((piece) => [piece[127], piece[128]])).toEqual([
      [0.5, 0],
      [0, 0],
    ])
  })

  it('sends nothing before it is told where to, and stays alive', () => {
    const { capture, sent } = capturing()
    expect(capture.process([[quantum(1)]])).toBe(true)
    expect(capture.process([])).toBe(true)
    expect(sent).toEqual([])
  })
})
