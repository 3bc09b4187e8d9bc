export { ratioToCents, centsToRatio, PURE_FIFTH_CENTS, SYNTONIC_COMMA_CENTS } from './cents'
export { INTERVALS, CHROMATIC, spelledInterval, sumOf } from './interval'
export {
  LETTERS,
  note,
  notesOf,
  parseNote,
  noteName,
  midiNumber,
  diatonicNumber,
  fifthsNumber,
  transpose,
} from './note'
export type { Note, Interval, Letter } from './note'
export {
  A4_HZ,
  DEFAULT_SYSTEM_ID,
  tuningSystem,
  knownSystem,
  governingSystemId,
  equal,
  fifths,
  just,
  scaled,
  centsAboveOpen,
  meterCents,
  frequencyHz,
} from './system'
export type { TuningSystem, SystemChoices } from './system'
export { scaleId, readScaleId, twelveOf, SCALE_SIZE } from './scale'
export type { NamedScale } from './scale'
export { parseScala, writeScala, scalaCents, SCALA_SIZE_LIMIT } from './scala'
export type { ScalaScale, ScalaPitch, ScalaFault, ScalaQuestion, ParsedScala } from './scala'
