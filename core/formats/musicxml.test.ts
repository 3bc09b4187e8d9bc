import createVerovio from 'verovio/wasm'
import { VerovioToolkit } from 'verovio/esm'
import { XMLParser, XMLValidator } from 'fast-xml-parser'
import { beforeAll, describe, expect, it } from 'vitest'
import { fingerScale } from '../fingering'
import { familyOf, type FamilyId } from '../instrument'
import { parseKey } from '../key'
import { placementContext } from '../pattern'
import { midiNumber, note } from '../pitch'
import { scoreOf } from '../score'
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
    const xml = await writeMusicXml(scoreOf(id, key(keyText), notes, 'eighth'), 'A line', id)
    expect(XMLValidator.validate(xml)).toBe(true)
    const sounds = soundOf(xml)
    // Written pitch, and by how much the part sounds lower.
    const lower = 0 - Number(/trans\.semi="(-?\d+)"/.exec(reader.getMEI())?.[1] ?? 0)
    expect(lower).toBe(id === 'bass' ? 12 : 0)
    expect(sounds.map(({ midi }) => midi - lower)).toEqual(notes.map((n) => midiNumber(n.note)))
  })

  it('carries fingers, strings, thumb, open strings, harmonics and the small clefs between notes', async () => {
    const notes = scaleOf('cello', 'D', 3)
    const xml = await writeMusicXml(
      scoreOf('cello', key('D'), notes, 'quarter'),
      'D & “three octaves”',
      'Cello',
    )
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
    const lower = { note: note('G4'), finger: 3, second: { note: note('B4'), finger: 1 } } as const
    const xml = await writeMusicXml(
      scoreOf('violin', key('G'), [lower, lower], 'quarter'),
      'Thirds',
      'Violin',
    )
    expect(soundOf(xml).map(({ count }) => count)).toEqual([2, 2])
  })
})
