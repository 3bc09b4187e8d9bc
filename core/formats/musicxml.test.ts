import { parse, validate } from 'musicxml-io'
import createVerovio from 'verovio/wasm'
import { VerovioToolkit } from 'verovio/esm'
import { XMLParser, XMLValidator } from 'fast-xml-parser'
import { beforeAll, describe, expect, it } from 'vitest'
import { fingerScale } from '../fingering'
import { familyOf, type FamilyId } from '../instrument'
import { parseKey } from '../key'
import { placementContext } from '../pattern'
import { midiNumber, note } from '../pitch'
import { scoreOf, type Score } from '../score'
import { writeMusicXml } from './musicxml'

const key = (text: string) => {
  const parsed = parseKey(text)
  if (!parsed.ok) throw new Error(text)
  return parsed.key
}
const scaleOf = (id: FamilyId, keyText: string, octaves: 1 | 2 | 3) => {
  const family = familyOf(id)
  const made = fingerScale(placementContext(family, family.tuning), {
    key: key(keyText),
    figure: 'scale',
    octaves,
  })
  if (!made.ok) throw new Error(made.code)
  return made.notes
}

const written = (score: Score) =>
  writeMusicXml(score, { title: 'D & “three octaves”', instrument: 'A', position: ({ id }) => id })

/** An engraver that reads MusicXML of its own accord: verovio, compared through the sounds it makes of it. */
let reader: VerovioToolkit
beforeAll(async () => {
  reader = new VerovioToolkit(await createVerovio())
}, 60_000)

function soundOf(xml: string): { midi: number; count: number }[] {
  expect(reader.loadData(xml)).toBe(1)
  return (reader.renderToTimemap({}) as { on?: string[] }[])
    .filter(({ on }) => on !== undefined)
    .map(({ on }) => ({
      midi: reader.getMIDIValuesForElement(on![0]!).pitch,
      count: on!.length,
    }))
}

describe('a line as MusicXML', () => {
  it.each<[FamilyId, string, 1 | 2 | 3]>([
    ['violin', 'A melodic minor', 3],
    ['viola', 'E♭', 2],
    ['cello', 'D', 3],
    ['bass', 'G', 2],
  ])('sounds to another program as it is meant: %s, %s, %i octaves', async (id, keyText, octaves) => {
    const notes = scaleOf(id, keyText, octaves)
    const xml = await written(scoreOf(id, key(keyText), notes, 'eighth'))
    expect(XMLValidator.validate(xml)).toBe(true)
    const sounds = soundOf(xml)
    // Written pitch, and by how much the part sounds lower.
    const lower = 0 - Number(/trans\.semi="(-?\d+)"/.exec(reader.getMEI())?.[1] ?? 0)
    expect(lower).toBe(id === 'bass' ? 12 : 0)
    expect(sounds.map(({ midi }) => midi - lower)).toEqual(notes.map((n) => midiNumber(n.note)))
  })

  it('carries fingers, strings, thumb, open strings, harmonics and the small clefs between notes', async () => {
    const notes = scaleOf('cello', 'D', 3)
    const xml = await written(scoreOf('cello', key('D'), notes, 'quarter'))
    const count = (pattern: RegExp) => xml.match(pattern)?.length ?? 0
    expect(count(/<thumb-position/g)).toBe(2)
    expect(count(/<open-string/g)).toBe(notes.filter((n) => n.finger === 0).length)
    expect(count(/<fingering>/g)).toBe(notes.length - 2 - count(/<open-string/g))
    expect(count(/<harmonic>/g)).toBe(notes.filter((n) => n.harmonic).length)
    expect(count(/<fingering>x2</g)).toBe(4)
    expect(count(/<clef>/g)).toBe(3)
    expect(xml).toContain('<string>4</string>')
    const read = new XMLParser().parse(xml) as { 'score-partwise': { work: { 'work-title': string } } }
    expect(read['score-partwise'].work['work-title']).toBe('D & “three octaves”')
  })

  it('sounds two notes of a double stop together', async () => {
    const second = { note: note('B4'), finger: 1 } as const
    const lower = { note: note('G4'), finger: 3, stringIndex: 1, second } as const
    const xml = await written(scoreOf('violin', key('G'), [lower, lower], 'quarter'))
    expect(soundOf(xml).map(({ count }) => count)).toEqual([2, 2])
    // 3 on the D string, 1 on the A string above it.
    expect(xml.match(/<string>\d/g)).toEqual(['<string>3', '<string>2'])
  })

  it('breaks no rule of the format that another reader holds it to, with every bar whole', async () => {
    for (const [id, keyText, octaves] of [
      ['violin', 'G', 3],
      ['cello', 'F melodic minor', 3],
      ['bass', 'E', 2],
      ['viola', 'C chromatic', 2],
    ] as const)
      for (const value of ['quarter', 'eighth', 'sixteenth'] as const) {
        const xml = await written(scoreOf(id, key(keyText), scaleOf(id, keyText, octaves), value))
        const { errors } = validate(parse(xml))
        expect(errors, `${id} ${value}`).toEqual([])
      }
  })

  it('says the mode, the positions and shifts over their notes, and which notes stand under an octave line', async () => {
    const notes = scaleOf('violin', 'D', 3)
    const score = scoreOf('violin', key('D'), notes, 'quarter')
    const xml = await written(score)
    const all = score.bars.flat()
    expect(xml).toContain('<mode>major</mode>')
    expect(
      await written(
        scoreOf('cello', key('D melodic minor'), scaleOf('cello', 'D melodic minor', 1), 'quarter'),
      ),
    ).toContain('<mode>minor</mode>')
    const positions = all.filter(({ position }) => position)
    expect([...xml.matchAll(/<words[^>]*>([^<]+)</g)].map(([, words]) => words)).toEqual(
      positions.map(({ position }) => position!.id),
    )
    expect(xml.match(/<other-technical>shift</g)).toHaveLength(all.filter(({ isShift }) => isShift).length)
    const { start, end } = /octave-shift type="(?<start>down)"[\s\S]*octave-shift type="(?<end>stop)"/.exec(
      xml,
    )!.groups!
    expect([start, end]).toEqual(['down', 'stop'])
    // Read back by the other reader as high as it sounds, under the line as well.
    const heard = soundOf(xml).map(({ midi }) => midi)
    expect(heard).toEqual(notes.map((n) => midiNumber(n.note)))
    const between = xml.slice(xml.indexOf('type="down"'), xml.indexOf('type="stop"'))
    expect(between.match(/<pitch>/g)).toHaveLength(all.filter(({ isOttava }) => isOttava).length)
  })
})
