export {
  readInstrumentRows,
  INSTRUMENT_COLUMNS,
  readHeading,
  tapeCell,
  REQUIRED_COLUMNS,
  LABEL_LENGTH,
  IMPORT_BATCH,
  sizeCell,
} from './instrument-rows'
export type {
  ImportedInstrument,
  ImportFault,
  KeptBesides,
  LaidAt,
  InstrumentColumn,
  ReadRow,
  RowFault,
  TableFault,
  TableRecord,
} from './instrument-rows'
export { guardFormula, unguardFormula } from './formula'
export { parseWav, WavStream, writeWav } from './wav'
export type { ParsedWav, WavEncoding, WavFault, WavFormat, WavOddities } from './wav'
export { writeHeardMidi } from './midi'
export type { SoundedNote } from './midi'
export { writeMusicXml } from './musicxml'
export { readMusicXml } from './read-musicxml'
export type { MusicXmlFault, ReadMusicXml, ReadNote } from './read-musicxml'
