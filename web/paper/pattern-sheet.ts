import {
  hasNote,
  patternSheet,
  placedStops,
  type AtlasCell,
  type Key,
  type Page,
  type PaperId,
  type PatternSheetWords,
  type Position,
  type Stringing,
} from '#core'
import { shortDay } from '../words/dates'
import { inUnit, length, unitName } from '../words/numbers'
import { keyName } from '../words/keys'
import { handSentence, noPlacementSentence, patternName, stepsName, stopName } from '../words/patterns'
import { positionName } from '../words/positions'
import { noteLabel } from '../words/notes'
import { studioDay } from '../words/shown'

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
      : `Drawn at 1 : ${oneTo} along the strings, wider across; the places beside it are those of the instrument.`,
}

export interface PatternSheetFacts {
  readonly key: Key
  readonly position: Position
  /** What the key asks of the hand, string by string. */
  readonly cells: readonly AtlasCell[]
  readonly stringing: Stringing
  /** Whose sheet it is, and the instrument it is drawn for. */
  readonly whose: readonly string[]
  readonly paper: PaperId
  readonly drawing: 'scale' | 'diagram'
}

/** The sheet of the key and position that the atlas shows. */
export function patternSheetPage({
  key,
  position,
  cells,
  stringing,
  whose,
  paper,
  drawing,
}: PatternSheetFacts): Page {
  const isToScale = drawing === 'scale'
  const instrument = isToScale
    ? [`${length(stringing.lengthMm)}${stringing.isMeasured ? '' : ', typical'}`]
    : []
  return patternSheet({
    title: `${keyName(key)}, ${positionName(position)}`,
    subtitle: [...whose, ...instrument, shortDay(studioDay())].join(' · '),
    paper,
    drawing,
    board: stringing.board,
    words: WORDS,
    strings: cells.map((cell, index) => {
      const open = stringing.tuning[index]!
      const name = noteLabel(open, { octave: false })
      const isOpenInKey = hasNote(key, open)
      if (cell.kind === 'none')
        return { name, isOpenInKey, fingers: [], lines: ['–', noPlacementSentence(cell)] }
      const places = placedStops(stringing, cell)
      const note = (p: (typeof places)[number]) => noteLabel(p.note, { octave: false })
      return {
        name,
        isOpenInKey,
        fingers: places.map((p) => ({ ...p, note: note(p) })),
        lines: [
          places.map((p) => `${stopName(p)} ${note(p)}`).join(' · '),
          ...(cell.pattern
            ? [`${patternName(stringing.family, cell.pattern)} · ${stepsName(cell.pattern)}`]
            : []),
          ...(isToScale ? [`${places.map((p) => inUnit(p.placeMm)).join(' – ')} ${unitName()}`] : []),
          ...handSentence(stringing.family, cell),
        ],
      }
    }),
  })
}
