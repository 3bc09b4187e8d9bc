export type { HeardDoubleStop, HeardNote, HeardPitch, HeardVibrato } from './heard-note'
export { NoteFinder, NOTE_OPTIONS } from './note-finder'
export type { NoteOptions } from './note-finder'
