export { readInstrumentRows, INSTRUMENT_COLUMNS, REQUIRED_COLUMNS, LABEL_LENGTH } from './instrument-rows'
export type { ImportedInstrument, InstrumentColumn, ReadRow, RowFault } from './instrument-rows'
