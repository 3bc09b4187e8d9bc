import { describe, expect, it } from 'vitest'
import { note, parseKey } from '#core'
import { scoreOf } from './score'

const key = (text: string) => {
  const parsed = parseKey(text)
  if (!parsed.ok) throw new Error(text)
  return parsed.key
}
const line = (names: string) => names.split(' ').map((name) => ({ note: note(name), finger: 1 }))
const signs = (keyText: string, names: string) =>
  scoreOf('violin', key(keyText), line(names), 'quarter').bars.map((bar) => bar.map((n) => n.sign ?? ''))

const IN_KEY = [
  ['D', 'D4 E4 F♯4 G4 A4 B4 C♯5 D5'],
  ['E♭', 'E♭4 F4 G4 A♭4 B♭4 C5 D5 E♭5'],
  ['F♯ natural minor', 'F♯4 G♯4 A4 B4 C♯5 D5 E5 F♯5'],
  ['G dorian', 'G4 A4 B♭4 C5 D5 E5 F5 G5'],
] as const

describe('a written line', () => {
  it('needs no sign for the notes of its key', () => {
    for (const [k, names] of IN_KEY) expect(signs(k, names).flat().join(''), k).toBe('')
  })

  it('has a sign where a note leaves the signature, once a bar, and takes it back', () => {
    expect(signs('A harmonic minor', 'G♯4 A4 G♯4 G4')).toEqual([['#', '', '', 'n']])
    expect(signs('D', 'C4 C♯4 C5 C♯5')).toEqual([['n', '#', 'n', '#']])
    expect(signs('C', 'F♯4 G4 A4 B4 F♯4')).toEqual([['#', '', '', ''], ['#']])
  })

  it('writes double sharps, and every sign of a key that no signature stands for', () => {
    expect(signs('G♯ harmonic minor', 'F♯♯4 G♯4')).toEqual([['##', '']])
    expect(scoreOf('violin', key('G♯'), line('G♯4'), 'quarter')).toMatchObject({
      signature: 'C',
      bars: [[{ sign: '#' }]],
    })
  })

  it('counts four beats a bar', () => {
    const names = 'C4 D4 E4 F4 G4 A4 B4 C5 D5'
    const bars = (value: 'quarter' | 'eighth' | 'sixteenth') =>
      scoreOf('violin', key('C'), line(names), value).bars.map((bar) => bar.length)
    expect(bars('quarter')).toEqual([4, 4, 1])
    expect(bars('eighth')).toEqual([8, 1])
    expect(bars('sixteenth')).toEqual([9])
  })

  it('stands on the family’s clef, a bass an octave above where it sounds', () => {
    expect(scoreOf('viola', key('C'), line('C4'), 'quarter').clef).toBe('alto')
    expect(scoreOf('bass', key('E'), line('E1'), 'quarter')).toMatchObject({
      clef: 'bass',
      signature: 'E',
      bars: [[{ pitch: 'e/2' }]],
    })
  })
})
