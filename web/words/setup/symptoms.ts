import type { Symptom } from '#core'

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
