export { MODES, MODE_IDS } from './mode'
export type { Mode, ModeId } from './mode'
export { keyOf, keysOf, parseKey, scaleOf, noteInKey, notesOnLetter, hasNote } from './key'
export type { Key, KeyFault, ParsedKey } from './key'
