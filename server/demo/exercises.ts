import { FAMILY_IDS } from '#core'
import type { OwnExercise } from '#contracts'

/** What the invented studio gives to practise beside the tool's exercises. */
export const DEMO_EXERCISES: readonly OwnExercise[] = [
  {
    id: 'own-lantern-steps',
    name: 'Lantern steps',
    how: 'Up and down one string by step, each note twice, the finger before staying down as long as it can.',
    stop: 'Stop when the thumb begins to squeeze.',
    part: 'patterns',
    families: [...FAMILY_IDS],
    minutes: 3,
    times: 4,
    fromAge: null,
    findings: [],
    items: [],
    notes: 'D4/0 D/0 E E F# F# G G | A4/0 G F# E D',
    writtenFor: 'violin',
    isOffered: true,
  },
  {
    id: 'own-still-water',
    name: 'Still water',
    how: 'One long note a bow, as even as still water; look at the finger before the bow begins.',
    stop: '',
    part: 'aim',
    families: [...FAMILY_IDS],
    minutes: 3,
    times: null,
    fromAge: 7,
    findings: ['wobble'],
    items: [],
    notes: 'A4/0 B A G | F# E D',
    writtenFor: 'violin',
    isOffered: true,
  },
]
