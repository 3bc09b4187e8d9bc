import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  centsAboveOpen,
  fifths,
  note,
  parseScala,
  readScaleId,
  scalaCents,
  scaleId,
  tuningSystem,
  twelveOf,
  writeScala,
} from './index'

/** Written for this test after the format description (Scala scale file format, Huygens-Fokker Foundation). */
const MEANTONE = `! meantone_for_test.scl
!
Quarter-comma meantone, twelve notes
 12
!
 76.04900
 193.15686  a comment after the pitch
 310.26471
 5/4
 503.42157
 579.47057
 696.57843
 25/16
 889.73529
 1006.84314
 1082.89214
 2/1
`

function faultOf(text: string) {
  const parsed = parseScala(text)
  return parsed.ok ? undefined : parsed.fault
}

describe('a Scala file (Scala scale file format)', () => {
  it('is read with cents, ratios and comments after the pitch', () => {
    const parsed = parseScala(MEANTONE)
    const cents = parsed.ok ? scalaCents(parsed.scale) : []
    expect(cents).toHaveLength(12)
    expect(cents[3]).toBeCloseTo(386.3137, 4) // 5:4, published
    expect(cents[6]).toBeCloseTo(696.5784, 4) // the fifth of quarter-comma meantone, published
    expect(cents[11]).toBe(1200)
  })

  it('takes what the description allows: an empty description, no notes, whole numbers, any line end, a mark of order', () => {
    expect(parseScala('\uFEFF\r\n 2\r\n3/2\r\n2\r\n')).toEqual({
      ok: true,
      scale: {
        description: '',
        pitches: [
          { kind: 'ratio', numerator: 3, denominator: 2 },
          { kind: 'ratio', numerator: 2, denominator: 1 },
        ],
      },
      questions: [],
    })
    expect(parseScala('old\r\n 1\r\n2/1\r\n\x1a')).toMatchObject({ ok: true, scale: { pitches: [{}] } })
    expect(parseScala('nothing but 1/1\n0\n')).toMatchObject({ ok: true, scale: { pitches: [] } })
    expect(parseScala('below\n 1\n -5.0\n')).toMatchObject({ ok: true })
  })

  it('says on which line what is wrong', () => {
    expect(faultOf('')).toEqual({ code: 'scala_no_description', line: 1 })
    expect(faultOf('! only\n')).toMatchObject({ code: 'scala_no_description' })
    expect(faultOf('a\n! b\n')).toMatchObject({ code: 'scala_no_count', line: 3 })
    expect(faultOf('a\n! b\ntwelve\n')).toEqual({ code: 'scala_bad_count', line: 3, text: 'twelve' })
    expect(faultOf('a\n2\n100.0\nx9\n')).toEqual({ code: 'scala_bad_pitch', line: 4, text: 'x9' })
    expect(faultOf('a\n1\n3/0\n')).toMatchObject({ code: 'scala_bad_pitch', line: 3 })
    expect(faultOf('a\n1\n-3/2\n')).toMatchObject({ code: 'scala_negative_ratio', line: 3 })
    expect(faultOf('a\n3\n100.0\n')).toMatchObject({ code: 'scala_too_few', said: 3, found: 1 })
    expect(faultOf('a\n1\n100.0\n200.0\n')).toEqual({ code: 'scala_too_many', line: 4, said: 1 })
  })

  it('refuses numbers that are no longer numbers, in time', () => {
    const huge = `1${'0'.repeat(400)}`
    expect(faultOf(`a\n1\n${huge}/1\n`)).toMatchObject({ code: 'scala_out_of_reach', line: 3 })
    expect(faultOf(`a\n1\n${3n ** 700n}/${2n ** 1109n}\n`)).toMatchObject({ code: 'scala_out_of_reach' })
    expect(faultOf(`a\n1\n${huge}.0\n`)).toMatchObject({ code: 'scala_out_of_reach' })
    expect(faultOf('a\n1\n1e400/1\n')).toMatchObject({ code: 'scala_bad_pitch' })
  })

  it('asks about what the format takes and probably nobody meant', () => {
    const questionsOf = (text: string) => {
      const parsed = parseScala(text)
      return parsed.ok ? parsed.questions : parsed.fault
    }
    expect(questionsOf('a\n2\n5 / 4\n2/1\n')).toEqual([
      { code: 'scala_spaced_ratio', line: 3, text: '5 / 4' },
    ])
    expect(questionsOf('a\n2\n702\n1200\n')).toMatchObject([
      { code: 'scala_cents_without_point', line: 3 },
      { code: 'scala_cents_without_point', line: 4 },
    ])
    expect(questionsOf('a\n2\n5/4 a third\n2\n')).toEqual([])
  })

  it('refuses 10 MB at once and quotes no more than a line of what it refuses', () => {
    expect(faultOf('x'.repeat(10_000_000))).toMatchObject({ code: 'scala_too_large' })
    const long = faultOf(`a\n1\n${'z'.repeat(5000)}\n`)
    expect(long && 'text' in long ? long.text.length : 0).toBeLessThan(50)
  })

  it('comes back as it was written', () => {
    const pitch = fc.oneof(
      fc.record({
        kind: fc.constant('cents' as const),
        cents: fc.integer({ min: -200_000_000, max: 200_000_000 }).map((c) => c / 100_000),
      }),
      fc.record({
        kind: fc.constant('ratio' as const),
        numerator: fc.integer({ min: 1, max: 2 ** 31 - 1 }),
        denominator: fc.integer({ min: 1, max: 2 ** 31 - 1 }),
      }),
    )
    const scales = fc.record({ description: fc.string().map((s) => s.trim()), pitches: fc.array(pitch) })
    fc.assert(
      fc.property(scales, (scale) => {
        const parsed = parseScala(writeScala(scale, 'a.scl'))
        if (!parsed.ok) throw new Error(parsed.fault.code)
        expect(scalaCents(parsed.scale).length).toBe(scale.pitches.length)
        scalaCents(parsed.scale).forEach((c, i) => expect(c).toBeCloseTo(scalaCents(scale)[i]!, 4))
      }),
      { seed: 42 },
    )
  })

  it('never throws, whatever the file holds', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (text) => void parseScala(text)),
      { seed: 42 },
    )
  })
})

describe('a scale of another number of notes', () => {
  it('gives each of the twelve its nearest note', () => {
    const edo = (n: number) => Array.from({ length: n }, (_, i) => (1200 * (i + 1)) / n)
    expect(twelveOf(edo(12))).toEqual({ cents: edo(12), furthestCents: 0 })
    // 31 equal steps: the third is its tenth, 387.1 cents (published: 31 equal temperament, near quarter-comma meantone)
    expect(twelveOf(edo(31))!.cents[3]).toBeCloseTo(387.097, 2)
    expect(twelveOf(edo(5))!.furthestCents).toBeCloseTo(120, 9)
    // Repeats at the twelfth (3:1), thirteen equal steps of it: 1170.3 is the nearest to the octave.
    const tritave = Array.from({ length: 13 }, (_, i) => (1901.955 * (i + 1)) / 13)
    expect(twelveOf(tritave)!.cents[11]).toBeCloseTo((1901.955 * 8) / 13, 9)
    expect(twelveOf([])).toBeUndefined()
    expect(twelveOf([100, -5])).toBeUndefined()
  })

  it('has a name of any signs, cut between them', () => {
    const cents = Array.from({ length: 12 }, (_, i) => 100 * (i + 1))
    for (const name of ['𝄪'.repeat(60), `${'x'.repeat(39)}𝄪`, 'half \ud834 a sign', 'Ö'.repeat(50)]) {
      const read = readScaleId(scaleId(name, 'D', cents))
      expect(read?.cents).toEqual(cents)
      expect(name.replace(/\p{Surrogate}/u, '').startsWith(read!.name)).toBe(true)
    }
    expect(scaleId('𝄪'.repeat(60), 'D', cents).length).toBeLessThan(400)
  })
})

describe('a scale as a tuning system', () => {
  it('holds the chain of fifths when it is given the Pythagorean scale on D (published ratios)', () => {
    const ratios = [
      256 / 243,
      9 / 8,
      32 / 27,
      81 / 64,
      4 / 3,
      729 / 512,
      3 / 2,
      128 / 81,
      27 / 16,
      16 / 9,
      243 / 128,
      2,
    ]
    const system = tuningSystem(
      scaleId(
        'Pythagoras on D',
        'D',
        ratios.map((r) => 1200 * Math.log2(r)),
      ),
    )!
    for (const [open, stopped] of [
      ['G3', 'A3'],
      ['D4', 'F#4'],
      ['A4', 'D5'],
      ['E5', 'F5'],
    ] as const)
      expect(centsAboveOpen(system, note(open), note(stopped))).toBeCloseTo(
        centsAboveOpen(fifths, note(open), note(stopped)),
        2,
      )
  })

  it('carries its name, and is no system when a step is missing', () => {
    const cents = Array.from({ length: 12 }, (_, i) => 100 * (i + 1))
    const id = scaleId('Quay: eleven, & more', 'B♭', cents)
    expect(readScaleId(id)).toMatchObject({ name: 'Quay: eleven, & more', keynote: 'B♭', cents })
    expect(id.length).toBeLessThan(400)
    expect(tuningSystem(scaleId('short', 'C', cents.slice(1)))).toBeUndefined()
    expect(tuningSystem('scale:H:x:1,2,3')).toBeUndefined()
  })
})
