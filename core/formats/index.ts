export {
  readInstrumentRows,
  INSTRUMENT_COLUMNS,
  REQUIRED_COLUMNS,
  LABEL_LENGTH,
  IMPORT_BATCH,
} from './instrument-rows'
export type { ImportedInstrument, InstrumentColumn, ReadRow, RowFault } from './instrument-rows'
