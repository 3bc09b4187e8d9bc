import { afterEach, describe, expect, it } from 'vitest'
import { note, parseNote } from '#core'
import { cutLength, inches, inStudioUnit, length, signedLength, unitName } from './numbers'
import { asLetters, labelOfName, noteLabel } from './notes'
import { showAs } from './shown'

afterEach(() => showAs({ lengthUnit: 'mm', noteNames: 'letters' }))
const named = (noteNames: 'german' | 'fixed_do', ...names: string[]) => {
  showAs({ lengthUnit: 'mm', noteNames })
  return names.map((name) => noteLabel(note(name), { octave: false })).join(' ')
}

/** Any German primer (Allgemeine Musiklehre): the twelve keynotes, and the names that are no letter with an ending. */
describe('German names', () => {
  it('have H for B, B for B flat, and -is and -es but for Es and As', () => {
    expect(named('german', 'C4', 'C♯4', 'D4', 'E♭4', 'E4', 'F4', 'F♯4', 'G4', 'A♭4', 'A4', 'B♭4', 'B4')).toBe(
      'C Cis D Es E F Fis G As A B H',
    )
    expect(named('german', 'D♭4', 'G♭4', 'C♭4', 'F♭4', 'G♯4', 'A♯4', 'B♯4', 'E♯4')).toBe(
      'Des Ges Ces Fes Gis Ais His Eis',
    )
    expect(named('german', 'F##4', 'C##4', 'Bbb4', 'Ebb4', 'Abb4', 'Dbb4')).toBe(
      'Fisis Cisis Heses Eses Asas Deses',
    )
  })
})

describe('fixed do', () => {
  it('has Do for C up to Si for B, with the signs of letters', () => {
    expect(named('fixed_do', 'C4', 'D4', 'E4', 'F4', 'G4', 'A4', 'B4')).toBe('Do Re Mi Fa Sol La Si')
    expect(named('fixed_do', 'B♭3', 'F♯4', 'Ebb4')).toBe('Si♭ Fa♯ Mi♭♭')
  })
})

it('names what is kept by its letters, with an octave where it is wanted', () => {
  showAs({ lengthUnit: 'mm', noteNames: 'german' })
  expect([
    labelOfName('B♭3'),
    labelOfName('B'),
    labelOfName('B3', { octave: true }),
    labelOfName('no note'),
  ]).toEqual(['B', 'H', 'H3', 'no note'])
})

it.each(['german', 'fixed_do'] as const)('are read again as %s writes them', (noteNames) => {
  showAs({ lengthUnit: 'mm', noteNames })
  for (const letter of 'CDEFGAB')
    for (const sign of ['', '♯', '♭', '##', 'bb']) {
      const named = note(`${letter}${sign}3`)
      expect(parseNote(asLetters(noteLabel(named)))).toEqual(named)
    }
})

describe('lengths', () => {
  const written = (lengthUnit: 'mm' | 'cm' | 'in', mm: number) => {
    showAs({ lengthUnit, noteNames: 'letters' })
    return length(mm)
  }

  it('are written in the studio’s unit, an inch being 25.4 mm (ISO 31-1)', () => {
    expect([written('mm', 31.64), written('cm', 31.64), written('in', 31.75)]).toEqual([
      '31.6 mm',
      '3.16 cm',
      '1 1/4 in',
    ])
    expect(unitName()).toBe('in')
    // A mark of the rule is too coarse for how far a finger is off.
    expect([signedLength(0.4), signedLength(-6.35), signedLength(0)]).toEqual([
      '+0.016 in',
      '−0.250 in',
      '0.000 in',
    ])
    expect(cutLength(66.1)).toBe('2 5/8 in')
    expect(inStudioUnit('Is the thumb about 25 mm behind 1, 4 to 6 mm off the neck?')).toBe(
      'Is the thumb about 31/32 in behind 1, 5/32 to 1/4 in off the neck?',
    )
  })

  it('in inches are fractions of a rule, in their lowest terms, never a thirty-third', () => {
    expect([327.025, 25.4, 0.79375, 0, 25.39, -12.7, 304.8].map(inches)).toEqual([
      '12 7/8',
      '1',
      '1/32',
      '0',
      '1',
      '−1/2',
      '12',
    ])
    for (let mm = 0; mm < 60; mm += 0.1) {
      const back = inches(mm)
        .split(' ')
        .map((part) => part.split('/').map(Number))
        .reduce((sum, [top = 0, bottom = 1]) => sum + top / bottom, 0)
      expect(Math.abs(back * 25.4 - mm)).toBeLessThanOrEqual(25.4 / 64 + 1e-9)
    }
  })
})
