import type { Alternative, AlternativeId, Lock, Note } from '#core'
import { fingerWords } from './fingers'
import { labelOfName, noteLabel } from './notes'
import { count } from './numbers'

/** What no hand does, named: the note, the finger and the string. */
export function lockFaultSentence(
  { note, lock }: { readonly note: string; readonly lock: Lock },
  tuning: readonly Note[],
): string {
  const open = lock.stringIndex === undefined ? undefined : tuning[lock.stringIndex]
  const what = [
    ...(lock.finger === undefined ? [] : [`with ${fingerWords(lock.finger)}`]),
    ...(open ? [`on the ${noteLabel(open, { octave: false })} string`] : []),
    ...(lock.harmonic ? ['as a harmonic'] : []),
    ...(lock.isShift === undefined ? [] : [lock.isShift ? 'with a shift' : 'without a shift']),
  ].join(' ')
  return `No hand plays note ${lock.index + 1}, ${labelOfName(note, { octave: true })}, ${what}: settle it otherwise, or take it back.`
}

export const ALTERNATIVE_NAMES: Record<AlternativeId, string> = {
  usual: 'Usual',
  no_open: 'No open strings',
  stay: 'Stay and stretch',
  start_first: 'Start on 1',
  start_second: 'Start on 2',
  semitones: 'One finger a semitone',
  closed: 'Closed hands',
  few_crossings: 'Fewer strings',
  shift_elsewhere: 'Shift elsewhere',
  higher: 'Higher up',
  one_string: 'On one string',
  other_fingers: 'Other fingers',
}

const ALTERNATIVE_WHY: Record<AlternativeId, string> = {
  usual: 'As it is mostly played.',
  no_open: 'Every note in the hand, for vibrato and one colour.',
  stay: 'Fewer shifts; 4 stretches.',
  start_first: 'One shape that serves every key.',
  start_second: 'One shape that serves every key, half a hand lower.',
  semitones: 'Every note articulate, no slide.',
  closed: 'No extension: a smaller hand shifts instead.',
  few_crossings: 'One colour; the left hand travels for the bow.',
  shift_elsewhere: 'The same strings, other places to shift.',
  higher: 'Above the first position wherever it can: to know the higher ones.',
  one_string: 'One string as far as it goes: one colour, and shifts to practise.',
  other_fingers: 'Another finger wherever there is one.',
}

/** Why one would choose it, with its shifts and crossings: `Fewer shifts; 4 stretches. 1 shift, 3 crossings.` */
export function alternativeSentence({ id, shifts, crossings }: Alternative): string {
  return `${ALTERNATIVE_WHY[id]} ${count(shifts, 'shift')}, ${count(crossings, 'crossing')} going up.`
}
