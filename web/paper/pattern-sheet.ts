import {
  hasNote,
  noteName,
  patternSheet,
  type BoardMeasures,
  type Page,
  type PaperId,
  type PatternSheetWords,
} from '#core'
import { placesOf } from '../features/patterns/places'
import type { Atlas } from '../features/patterns/useAtlas'
import type { Bench } from '../features/tapes/useBench'
import { isoDay, shortDay } from '../words/dates'
import { mm } from '../words/numbers'
import {
  extensionSentence,
  keyName,
  noPlacementSentence,
  patternName,
  positionName,
  stepsName,
  stopName,
} from '../words/patterns'

const WORDS: PatternSheetWords = {
  nut: 'nut',
  diagram: 'A diagram: every half step is drawn equally wide.',
  legend: [
    'Filled circle at the nut: the key has the open string.',
    'Dashed circle: the finger rests, the scale leaves its note out.',
    'Tune first. The sheet guides, the ear decides.',
    'Stop and rest at any pain; never stretch 4 upwards.',
  ],
  scale: (oneTo) =>
    oneTo === 1
      ? 'As long as on the instrument: print at 100 % (“actual size”) and measure the 50 mm line.'
      : `Drawn at 1 : ${oneTo}; the mm beside it are those of the instrument.`,
}

export interface PatternSheetFacts {
  readonly atlas: Atlas
  readonly bench: Bench
  readonly board: BoardMeasures
  /** Whose sheet it is, and the instrument it is drawn for. */
  readonly whose: readonly string[]
  readonly paper: PaperId
  readonly drawing: 'scale' | 'diagram'
}

/** The sheet of the key and position that the atlas shows. */
export function patternSheetPage({ atlas, bench, board, whose, paper, drawing }: PatternSheetFacts): Page {
  const isToScale = drawing === 'scale'
  const instrument = isToScale
    ? [`${mm(bench.lengthMm.value)} mm${bench.isTypical.value ? ', typical' : ''}`]
    : []
  return patternSheet({
    title: `${keyName(atlas.key.value)}, ${positionName(atlas.position.value)}`,
    subtitle: [...whose, ...instrument, shortDay(isoDay(new Date()))].join(' · '),
    paper,
    drawing,
    board,
    words: WORDS,
    strings: atlas.hands.value.map((hand, index) => {
      const open = atlas.tuning.value[index]!
      const name = noteName(open, { octave: false })
      const isOpenInKey = hasNote(atlas.key.value, open)
      if (hand.kind === 'none')
        return { name, isOpenInKey, fingers: [], lines: wrapped(noPlacementSentence(hand)) }
      const places = placesOf(hand, bench.bed.value, atlas.tuning.value, bench.system.value)
      const note = (p: (typeof places)[number]) => noteName(p.note, { octave: false })
      return {
        name,
        isOpenInKey,
        fingers: places.map((p) => ({ ...p, note: note(p) })),
        lines: [
          places.map((p) => `${stopName(p)} ${note(p)}`).join(' · '),
          ...(hand.pattern
            ? [`${patternName(atlas.family.value, hand.pattern)} · ${stepsName(hand.pattern)}`]
            : []),
          ...(isToScale ? [`${places.map((p) => mm(p.placeMm)).join(' – ')} mm`] : []),
          ...(hand.extension === 'none' ? [] : wrapped(extensionSentence(hand.extension))),
        ],
      }
    }),
  })
}

/** About as many letters as stand beside the drawing. */
const LINE_LETTERS = 48

function wrapped(sentence: string): string[] {
  const lines: string[] = ['']
  for (const word of sentence.split(' ')) {
    const last = lines.at(-1)!
    if (last.length + word.length >= LINE_LETTERS) lines.push(word)
    else lines[lines.length - 1] = last === '' ? word : `${last} ${word}`
  }
  return lines
}
