import { NO_FAULTS, type FamilyId, type PlayerFaults, type PressingChoice, type TapeEventKind } from '#core'

/** An instrument of the invented cupboard. */
export interface DemoInstrument {
  readonly label: string
  readonly family: FamilyId
  readonly sizeId: string
  /** As the teacher wrote it; missing where nobody has measured yet. */
  readonly length?: string
  /** Where it was measured string by string, lowest first. */
  readonly stringLengths?: readonly string[]
  readonly pressing?: PressingChoice
  /** Since when it is in the cupboard, where that is longer than a term. */
  readonly hereWeeksAgo?: number
  /** A length that does not suit the size and was measured twice. */
  readonly keepAnyway?: boolean
  readonly school?: string
  readonly tapesLaidWeeksAgo?: number
  readonly warmHands?: boolean
  /** What became of its tapes, oldest first; `byMm` is how far from where the tape was laid. */
  readonly events?: readonly DemoEvent[]
  /** Places found by ring, on the day the tapes were laid; `byMm` is how far from the computed place. */
  readonly finds?: readonly { readonly string: string; readonly note: string; readonly byMm: number }[]
}

export interface DemoEvent {
  readonly weeksAgo: number
  readonly kind: TapeEventKind
  readonly markId?: string
  readonly byMm?: number
  readonly reason?: string
}

/** An invented student: the hand as it was when the term began, and how much of its faults is left by now. */
export interface DemoStudent {
  readonly name: string
  readonly age: number
  readonly family: FamilyId
  readonly time: string
  readonly toleranceCents: number
  readonly instrument?: string
  readonly strings: readonly string[]
  readonly shapeId: string
  readonly faults: PlayerFaults
  readonly left: number
  /** Weeks ago of each check, oldest first; the last one was played to a microphone, the others read off a meter. */
  readonly checks: readonly number[]
  /** Of a student who has been here for longer: the checks before those, read off a meter, the hand worse the longer ago. */
  readonly before?: readonly number[]
  /** What was played last, where it was more than the hand on one string. */
  readonly scale?: { readonly keyId: string; readonly octaves: 1 | 2 }
  readonly note: string
}

export const DEMO_INSTRUMENTS: readonly DemoInstrument[] = [
  { label: 'no. 1', family: 'violin', sizeId: '1/8', length: '227', school: 'first', tapesLaidWeeksAgo: 3 },
  { label: 'no. 2', family: 'violin', sizeId: '1/8', length: '229' },
  { label: 'no. 3', family: 'violin', sizeId: '1/10', length: '214.5' },
  {
    label: 'no. 4',
    family: 'violin',
    sizeId: '1/4',
    length: '254',
    // Its bridge stands a little askew.
    stringLengths: ['254.9', '254.3', '253.7', '253.1'],
    pressing: { mode: 'measured', nutHeightMm: 0.3, endHeightMm: 3.6, material: 'synthetic' },
    school: 'first_and_third',
    tapesLaidWeeksAgo: 10,
    finds: [{ string: 'D4', note: 'E4', byMm: 0.4 }],
  },
  { label: 'no. 5', family: 'violin', sizeId: '1/4', length: '10 1/16 in' },
  {
    label: 'no. 6',
    family: 'violin',
    sizeId: '1/2',
    length: '286',
    school: 'first_and_third',
    tapesLaidWeeksAgo: 5,
    events: [{ weeksAgo: 1, kind: 'bridge_changed', reason: 'Bridge fell when the strings were changed.' }],
  },
  {
    label: 'no. 7',
    family: 'violin',
    sizeId: '1/2',
    length: '284.5',
    school: 'every',
    tapesLaidWeeksAgo: 34,
    warmHands: true,
    finds: [
      { string: 'D4', note: 'E4', byMm: 0.5 },
      { string: 'G3', note: 'A3', byMm: 0.3 },
      { string: 'A4', note: 'D5', byMm: 0.7 },
      { string: 'D4', note: 'A4', byMm: 4.1 },
    ],
    events: [
      { weeksAgo: 28, kind: 'checked', markId: '1.2', byMm: 0.1 },
      {
        weeksAgo: 24,
        kind: 'crept',
        markId: '3.5',
        byMm: 1.4,
        reason: 'Warm hands after the ferry pageant.',
      },
      {
        weeksAgo: 24,
        kind: 'moved',
        markId: '3.5',
        byMm: 0.1,
        reason: 'Pushed back and rung against open G.',
      },
      { weeksAgo: 19, kind: 'faded', markId: '4.7', reason: 'Fourth finger finds its unison.' },
      { weeksAgo: 15, kind: 'faded', markId: '2.4', reason: 'One fewer this term.' },
      { weeksAgo: 12, kind: 'replaced', markId: '1.2', byMm: 0, reason: 'Came off in the cold.' },
      { weeksAgo: 8, kind: 'trial', reason: 'Lantern Round without looking: 1 in tune, 3 flat.' },
      {
        weeksAgo: 2,
        kind: 'crept',
        markId: '3.5',
        byMm: 1.2,
        reason: 'Third tape towards the bridge again.',
      },
    ],
  },
  { label: 'no. 8', family: 'violin', sizeId: '3/4', length: '308', school: 'first', tapesLaidWeeksAgo: 9 },
  { label: 'no. 9', family: 'violin', sizeId: '3/4' },
  { label: 'own violin, Ash', family: 'violin', sizeId: '4/4', length: '328' },
  { label: 'own violin, Quill', family: 'violin', sizeId: '4/4', length: '326.5', hereWeeksAgo: 56 },
  {
    label: 'no. 10',
    family: 'viola',
    sizeId: '13 in',
    length: '302',
    school: 'first_and_third',
    tapesLaidWeeksAgo: 4,
  },
  { label: 'no. 11', family: 'viola', sizeId: '15 in', length: '349' },
  { label: 'own viola, Tarn', family: 'viola', sizeId: '16 in', length: '371' },
  {
    label: 'no. 12',
    family: 'cello',
    sizeId: '1/4',
    length: '49.2 cm',
    school: 'first_third_fourth',
    tapesLaidWeeksAgo: 7,
  },
  {
    label: 'no. 13',
    family: 'cello',
    sizeId: '1/2',
    length: '551',
    school: 'first_third_fourth',
    tapesLaidWeeksAgo: 11,
  },
  { label: 'no. 14', family: 'cello', sizeId: '3/4', length: '618' },
  { label: 'own cello, Bramble', family: 'cello', sizeId: '4/4', length: '690' },
  {
    label: 'no. 15',
    family: 'bass',
    sizeId: '1/4',
    length: '903',
    school: 'first_and_fourth',
    tapesLaidWeeksAgo: 2,
  },
  {
    label: 'no. 16',
    family: 'bass',
    sizeId: '3/4',
    length: '1048',
    school: 'half_and_first',
    tapesLaidWeeksAgo: 6,
  },
]

const hand = (faults: Partial<PlayerFaults>): PlayerFaults => ({ ...NO_FAULTS, ...faults })

export const DEMO_STUDENTS: readonly DemoStudent[] = [
  {
    name: 'Pip Hallow',
    age: 6,
    family: 'violin',
    time: '09:00',
    toleranceCents: 20,
    instrument: 'no. 1',
    strings: ['A4'],
    shapeId: 'first',
    faults: hand({ handOffsetMm: 4, scatterCents: 11 }),
    left: 0.9,
    checks: [6, 3, 1],
    note: 'Squeezes; that will pass. First finger and open string only, plays Ferry Steps.',
  },
  {
    name: 'Wren Ottery',
    age: 7,
    family: 'violin',
    time: '09:20',
    toleranceCents: 20,
    instrument: 'no. 4',
    strings: ['A4', 'D4'],
    shapeId: 'first',
    faults: hand({ frameErrorMm: -5, scatterCents: 7 }),
    left: 0.55,
    checks: [11, 9, 7, 5, 3, 1],
    note: '',
  },
  {
    name: 'Orla Venn',
    age: 9,
    family: 'violin',
    time: '09:40',
    toleranceCents: 15,
    instrument: 'no. 7',
    strings: ['A4', 'D4'],
    shapeId: 'first',
    faults: hand({ fingerOffsetMm: { 4: -4.2 }, scatterCents: 4 }),
    left: 0.7,
    checks: [12, 10, 8, 6, 4, 2, 1],
    note: 'Short fourth finger. Lantern Round by memory. Ask about the shoulder rest.',
  },
  {
    name: 'Jory Pellam',
    age: 9,
    family: 'violin',
    time: '10:00',
    toleranceCents: 20,
    instrument: 'no. 6',
    strings: ['A4'],
    shapeId: 'first_low_2',
    faults: hand({ fingerOffsetMm: { 2: 5 }, scatterCents: 6 }),
    left: 0.6,
    checks: [9, 7, 5, 2],
    note: 'Low second finger still goes to the high place.',
  },
  {
    name: 'Tamsin Reed',
    age: 11,
    family: 'violin',
    time: '10:20',
    toleranceCents: 15,
    instrument: 'no. 8',
    strings: ['D4', 'G3'],
    shapeId: 'first',
    faults: hand({ handOffsetMm: 2.8, scatterCents: 4 }),
    left: 0.25,
    checks: [12, 10, 8, 5, 3, 1],
    note: '',
  },
  {
    name: 'Corin Blythe',
    age: 12,
    family: 'violin',
    time: '10:40',
    toleranceCents: 15,
    instrument: 'no. 9',
    strings: [],
    shapeId: 'first',
    faults: NO_FAULTS,
    left: 1,
    checks: [],
    note: 'Moved up from the half-size last week.',
  },
  {
    name: 'Edda Ash',
    age: 34,
    family: 'violin',
    time: '11:00',
    toleranceCents: 15,
    instrument: 'own violin, Ash',
    strings: ['A4', 'E5'],
    shapeId: 'first',
    faults: hand({ frameErrorMm: 5, scatterCents: 5 }),
    left: 0.4,
    checks: [11, 8, 6, 4, 2, 1],
    note: 'Adult beginner. Tension in the thumb: begin with letting go.',
  },
  {
    name: 'Marlow Quill',
    age: 17,
    family: 'violin',
    time: '11:30',
    toleranceCents: 10,
    instrument: 'own violin, Quill',
    strings: ['D4', 'A4'],
    shapeId: 'first',
    faults: hand({ fingerOffsetMm: { 3: 2 }, scatterCents: 3 }),
    left: 0.2,
    checks: [12, 10, 7, 5, 3, 1],
    // A year of lessons, with the holidays of a school.
    before: [53, 52, 50, 49, 47, 46, 44, 41, 39, 38, 36, 35, 33, 31, 30, 22, 20, 19, 17, 16, 14, 13],
    note: 'Shifts to third position easily; vibrato can begin.',
  },
  {
    name: 'Isolde Marsh',
    age: 10,
    family: 'viola',
    time: '12:00',
    toleranceCents: 20,
    instrument: 'no. 10',
    strings: ['D4', 'C3'],
    shapeId: 'first',
    faults: hand({ frameErrorMm: -6, scatterCents: 6 }),
    left: 0.8,
    checks: [8, 6, 4, 1],
    note: 'Only the C string is far off: elbow does not come round.',
  },
  {
    name: 'Beck Tarn',
    age: 45,
    family: 'viola',
    time: '12:30',
    toleranceCents: 10,
    instrument: 'own viola, Tarn',
    strings: ['G3', 'A4'],
    shapeId: 'first',
    faults: hand({ handOffsetMm: -2.5, scatterCents: 3 }),
    left: 0.35,
    checks: [10, 8, 5, 2],
    scale: { keyId: 'C:major', octaves: 2 },
    note: '',
  },
  {
    name: 'Nell Farrow',
    age: 8,
    family: 'cello',
    time: '13:30',
    toleranceCents: 20,
    instrument: 'no. 12',
    strings: ['D3', 'A3'],
    shapeId: 'first',
    faults: hand({ fingerOffsetMm: { 2: 8 }, scatterCents: 6 }),
    left: 0.7,
    checks: [11, 9, 6, 3],
    note: 'One to two wide, two to three narrow: soft thumb.',
  },
  {
    name: 'Aubrey Sill',
    age: 13,
    family: 'cello',
    time: '14:00',
    toleranceCents: 15,
    instrument: 'no. 13',
    strings: ['G2', 'D3'],
    shapeId: 'extended_back',
    faults: hand({ fingerOffsetMm: { 1: 9 }, scatterCents: 4 }),
    left: 0.65,
    checks: [9, 7, 5, 1],
    note: 'Extended 1 creeps sharp when she pinches. Low Tide in B♭.',
  },
  {
    name: 'Rook Bramble',
    age: 61,
    family: 'cello',
    time: '14:30',
    toleranceCents: 15,
    instrument: 'own cello, Bramble',
    strings: ['D3', 'C2'],
    shapeId: 'first',
    faults: hand({ handOffsetMm: 5, scatterCents: 5 }),
    left: 0.5,
    checks: [12, 9, 6, 5],
    scale: { keyId: 'C:major', octaves: 2 },
    note: 'Stiff on cold mornings; short doses.',
  },
  {
    name: 'Lark Penhale',
    age: 11,
    family: 'bass',
    time: '15:00',
    toleranceCents: 20,
    instrument: 'no. 15',
    strings: ['G2', 'D2'],
    shapeId: 'first',
    faults: hand({ frameErrorMm: -12, scatterCents: 5 }),
    left: 0.6,
    checks: [7, 5, 3, 1],
    note: '',
  },
  {
    name: 'Denzil Crake',
    age: 16,
    family: 'bass',
    time: '15:30',
    toleranceCents: 15,
    instrument: 'no. 16',
    strings: ['A1', 'G2'],
    shapeId: 'half',
    faults: hand({ handOffsetMm: 11, scatterCents: 4 }),
    left: 0.3,
    checks: [11, 8, 4, 2],
    note: 'Moves the hand as one, thumb included. Good.',
  },
  {
    name: 'Sunniva Holt',
    age: 8,
    family: 'violin',
    time: '16:00',
    toleranceCents: 20,
    strings: [],
    shapeId: 'first',
    faults: NO_FAULTS,
    left: 1,
    checks: [],
    note: 'New this month. Needs an instrument: try the quarter-size, no. 5.',
  },
]
