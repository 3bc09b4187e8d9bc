import type { RemedyId, Symptom } from '#core'

/** Exercises with their doses. Common practice, no source. */
export const REMEDY_WORDS: Record<RemedyId, string> = {
  shake_out: 'Shake out and bring the arm up again, 5 to 10 minutes at the start of practice.',
  hands_away: 'Up, hold for a count of five, hand to the right shoulder and back; five minutes a day.',
  tap_on_wood: 'Tap all four fingers on wood, on the instrument, on the string: half a minute at a time.',
  thumb_taps: 'Tap the thumb between notes on a piece learned months ago.',
  thumb_circles: 'Thumb circles on the neck, then play on.',
  thumb_off: 'Play a line with the thumb off the neck, limp.',
  find_elbow: 'Find the elbow: 1-2-3-4 in tune held low across the body, keep that hand, bring it up.',
  swing_elbow: 'Swing from the highest string to the lowest and back, one note each.',
  fourth_against_open: 'Fourth finger against the open string, a few drops a day.',
  drop_fourth: 'Drop 4 ten times without the hand moving.',
  slow_scale_hover: 'A slow scale with every finger over its place, stopping between notes.',
  lift_from_rest: 'Quick lift and drop from rest, then no pressing: 5 to 10 minutes.',
  touch_two_and_three: 'Touch 2 and 3 at the tips, silently, then plucked, then bowed.',
  move_arm: 'Hold one pitch and move the arm about.',
  half_the_pressure: 'Press until the note just speaks, then half of the rest.',
  lift_extended_first: 'Lift and drop the extended 1, thumb still.',
  roll_1_2_4: 'Roll the hand finger by finger, up and back, from the thinnest string down.',
  silent_slides: 'Silent slides along the string, thumb with the hand.',
  tune_strings: 'Tune all strings, then read the open ones again.',
}

/** What the readings of such a hand tend to show. */
export const SYMPTOM_WORDS: Record<Symptom, string> = {
  hand_sharp: 'the whole hand sharp',
  hand_flat: 'the whole hand flat',
  creeping_sharp: 'sharper and sharper',
  narrow_frame: 'a narrow frame',
  wide_frame: 'a wide frame',
  fourth_flat: '4 flat',
  fourth_late: '4 late',
  lowest_strings_off: 'the lowest strings off, 4 worst',
  half_steps_wide: 'half steps too wide',
  one_two_wide: '1–2 wide, 2–3 narrow',
  extension_sharp: 'the extended 1 sharp',
  hand_moved_back: '2, 3 and 4 low after an extension',
  scatter: 'notes that scatter',
  wobble: 'held notes that wobble',
  no_ring: 'no ring',
  strings_off: 'every note off',
}
