import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import createVerovio from 'verovio/wasm'
import { VerovioToolkit } from 'verovio/esm'
import { describe, expect, it } from 'vitest'
import { fingerScale } from '../fingering'
import { FAMILY_IDS, familyOf } from '../instrument'
import { parseKey } from '../key'
import { placementContext } from '../pattern'
import { midiNumber, noteName } from '../pitch'
import { scoreOf } from '../score'
import { writeMusicXml } from './musicxml'
import { readMusicXml } from './read-musicxml'

/** Written by music21 10.5 (M. S. Cuthbert, C. Ariza, ISMIR 2010), not by this program. */
const made = (name: string) => readFileSync(join(import.meta.dirname, 'fixtures', `${name}.musicxml`), 'utf8')

async function read(xml: string) {
  const score = await readMusicXml(xml)
  if (!score.ok) throw new Error(score.fault.code)
  return score
}

describe('a line read from MusicXML', () => {
  it.each([
    ['a document type that is not closed', /\/\/EN"/, '//EN'],
    ['a declaration with a sign too many', '?>', '" encoding="utf-8"?>'],
  ])('with %s is refused, not fallen over (found by npm run fuzz)', async (_, from, to) => {
    expect(await readMusicXml(made('violin').replace(from, to))).toMatchObject({
      ok: false,
      fault: { code: 'not_xml' },
    })
  })

  it('is what another program wrote: names, fingers, ties and graces, on its first voice', async () => {
    const { title, notes, leftOut } = await read(made('violin'))
    expect(title).toBe('Rocking & rolling')
    expect(notes.map(({ note, finger }) => `${noteName(note)}${finger ?? ''}`)).toEqual([
      'D40',
      'E41',
      'F♯42',
      'G43',
      'D53',
      'G4',
      'B♭4',
      'B♯♯3',
      'E♭5',
      'A31',
    ])
    // A grace, and the upper note of a chord.
    expect(leftOut).toBe(2)
  })

  it('sounds as an engraver has it that reads the format of its own accord, transposed parts too', async () => {
    const reader = new VerovioToolkit(await createVerovio())
    for (const name of ['bass', 'clarinet']) {
      expect(reader.loadData(made(name))).toBe(1)
      const lower = 0 - Number(/trans\.semi="(-?\d+)"/.exec(reader.getMEI())?.[1] ?? 0)
      expect(lower).toBe(name === 'bass' ? 12 : 2)
      const sounds = (reader.renderToTimemap({}) as { on?: string[] }[]).flatMap(({ on = [] }) => on)
      const { notes } = await read(made(name))
      expect(notes.map(({ note }) => midiNumber(note))).toEqual(
        sounds.map((id) => reader.getMIDIValuesForElement(id).pitch - lower),
      )
    }
    const { notes } = await read(made('clarinet'))
    expect(notes.map(({ note }) => noteName(note))).toEqual(['C4', 'D♭4', 'E4'])
  }, 60_000)

  it('comes back from what is written here, with the thumb and open strings, for every family', async () => {
    const key = parseKey('D')
    for (const id of FAMILY_IDS) {
      const family = familyOf(id)
      const context = placementContext(family, family.tuning)
      const scale = key.ok && fingerScale(context, { key: key.key, figure: 'scale', octaves: 2 })
      if (!scale || !scale.ok) throw new Error(id)
      const score = scoreOf(id, key.ok ? key.key : undefined!, scale.notes, 'eighth')
      const xml = await writeMusicXml(score, { title: 'D', instrument: id, position: (p) => p.id })
      const { notes } = await read(xml)
      expect(notes).toEqual(scale.notes.map(({ note, finger }) => ({ note, finger })))
    }
  })

  it('names what is wrong with a file', async () => {
    const faultOf = async (xml: string) => {
      const score = await readMusicXml(xml)
      return score.ok ? undefined : score.fault
    }
    expect(await faultOf('PK\u0003\u0004')).toEqual({ code: 'compressed' })
    expect(await faultOf('<score-partwise>\n<part>\n</score-partwise>')).toEqual({ code: 'not_xml', line: 3 })
    expect(await faultOf('D4 E4')).toMatchObject({ code: 'not_xml' })
    expect(await faultOf('<score-timewise/>')).toEqual({ code: 'not_partwise' })
    expect(await faultOf('<score-partwise><part><measure/></part></score-partwise>')).toEqual({
      code: 'no_notes',
    })
    const quarterTone = made('bass').replace('<octave>2</octave>', '<alter>0.5</alter><octave>2</octave>')
    expect(await faultOf(quarterTone)).toEqual({ code: 'microtone', measure: '1' })
    expect(await faultOf(`<a>${' '.repeat(2_000_000)}</a>`)).toEqual({ code: 'too_large' })
  })
})
