import type { CaseId, PlayerLevel } from '#core'

/** What a simulated hand does, as a teacher names it. */
export const CASE_NAMES: Readonly<Record<CaseId, string>> = {
  well: 'Nothing: a good hand',
  hand_high: 'Whole hand too far up',
  hand_low: 'Whole hand too far back',
  frame_narrow: 'Frame too narrow',
  frame_wide: 'Frame too wide',
  fourth_short: '4 alone too short',
  second_low: '2 alone too low',
  half_steps: 'Half steps too wide',
  locked_thumb: 'Thumb locked: 1–2 wide, 2–3 narrow',
  elbow: 'Elbow: short on the lowest strings',
  pinched: 'Extension pinched',
  dragged: 'Hand gone back with the extended 1',
  creep: 'Hand creeps up',
  scatter: 'No constant path: scatter',
  string_unread: 'One string off, open string unread',
  two_faults: 'Two things at once',
  ear_repairs: 'The ear repairs what the hand misses',
  wobble: 'A held note wobbles',
  dull: 'Pitch right, tone dull',
  vibrato: 'Vibrato above the note',
  without_tapes: 'Right with tapes, off without',
  untuned: 'A string out of tune',
  tape: 'A tape in the wrong place',
  other_pattern: 'Another pattern than asked',
  few_notes: 'Too few notes to say',
}

export const PLAYER_LEVEL_NAMES: Readonly<Record<PlayerLevel, string>> = {
  beginner: 'Beginner',
  intermediate: 'Intermediate',
  trained: 'Trained',
}
