import type { BodyFitValues, SetupAnswer, SetupItemId, SomeSchools } from '#core'
import type { Level } from '#contracts'

/** A round of an invented student: what was not right; everything asked before that was. */
interface DemoRound {
  readonly weeksAgo: number
  readonly not: Readonly<Partial<Record<SetupItemId, SetupAnswer>>>
  readonly measured?: Readonly<Partial<Record<SetupItemId, number>>>
  readonly pain?: { readonly place: string; readonly since: string }
}

/** How an invented student holds the instrument, as it agrees with what the checks show. */
export interface DemoSetup {
  readonly level?: Level
  readonly schools?: SomeSchools
  /** Oldest first. */
  readonly rounds: readonly DemoRound[]
  readonly fit?: Partial<BodyFitValues> & { readonly note?: string }
  readonly gates?: readonly {
    readonly gate: 'shifting' | 'vibrato' | 'next_size'
    readonly item: 'thumb_follows' | 'steady_bow' | 'easy_shift' | 'swings_down' | 'arm_reaches'
  }[]
}

export const DEMO_SETUPS: Readonly<Record<string, DemoSetup>> = {
  // The whole hand sharp, and squeezing: a beginner’s fear of dropping it.
  'Pip Hallow': {
    schools: { contact: 'base_of_1' },
    rounds: [
      { weeksAgo: 6, not: { shoulder_rest: 'no' } },
      { weeksAgo: 1, not: { level: 'nearly', squeeze: 'no' } },
    ],
    fit: {
      chinRestMm: 18,
      restNearMm: 22,
      restFarMm: 30,
      handsOff: 3,
      bodyAngle: 40,
      note: 'Sponge under the rest.',
    },
  },
  // A narrow frame: the gap closed, the knuckles low; opening since autumn.
  'Wren Ottery': {
    rounds: [
      { weeksAgo: 10, not: { gap: 'no' }, measured: { gap: 1 } },
      { weeksAgo: 7, not: { gap: 'nearly', knuckles: 'no' }, measured: { gap: 4, knuckles: -9 } },
      {
        weeksAgo: 2,
        not: { gap: 'nearly', knuckles: 'nearly', elbow: 'nearly' },
        measured: { gap: 5, knuckles: -2 },
      },
    ],
    fit: { chinRestMm: 20, restNearMm: 26, restFarMm: 32, handsOff: 5, bodyAngle: 45 },
  },
  // The fourth finger flat: its side of the hand is far, the shoulder rest not yet settled.
  'Orla Venn': {
    schools: { thumb_violin: 'opposite_2', contact: 'tips_only', fourth_finger: 'long' },
    rounds: [
      { weeksAgo: 11, not: { shoulder_rest: 'nearly', palm: 'no' } },
      { weeksAgo: 8, not: { shoulder_rest: 'nearly', palm: 'nearly', fourth_side: 'no' } },
      {
        weeksAgo: 1,
        not: { shoulder_rest: 'nearly', palm: 'nearly', fourth_side: 'no' },
        measured: { thumb_place: -18, finger_angle: 61, wrist: 6 },
      },
    ],
    fit: {
      chinRestMm: 24,
      restNearMm: 30,
      restFarMm: 58,
      handsOff: 4,
      bodyAngle: 38,
      thumbMm: -18,
      note: 'Try the flatter rest.',
    },
  },
  // Low 2 goes high: the knuckles move as one.
  'Jory Pellam': {
    rounds: [
      { weeksAgo: 9, not: { nails: 'no' } },
      { weeksAgo: 2, not: { knuckle_room: 'no' } },
    ],
    fit: { chinRestMm: 22, restNearMm: 28, restFarMm: 36, handsOff: 5, bodyAngle: 50 },
  },
  // The hand sat sharp and has come back, the thumb with it.
  'Tamsin Reed': {
    schools: { thumb_violin: 'behind_1' },
    rounds: [
      { weeksAgo: 12, not: { thumb_place: 'no' }, measured: { thumb_place: -6 } },
      { weeksAgo: 1, not: { thumb_place: 'nearly' }, measured: { thumb_place: 14, wrist: 3, gap: 12 } },
    ],
    fit: { chinRestMm: 26, restNearMm: 32, restFarMm: 40, handsOff: 5, bodyAngle: 46, thumbMm: 14 },
  },
  'Corin Blythe': { rounds: [{ weeksAgo: 1, not: { size: 'nearly', shoulder_rest: 'no' } }] },
  // Spread wide and tense, as adult beginners are.
  'Edda Ash': {
    schools: { waiting_fingers: 'rest' },
    rounds: [
      { weeksAgo: 9, not: { tension: 'no' } },
      {
        weeksAgo: 2,
        not: { tension: 'nearly', pain: 'no' },
        pain: { place: 'left wrist', since: 'the weekend' },
      },
    ],
    fit: { chinRestMm: 34, restNearMm: 40, restFarMm: 46, handsOff: 5, bodyAngle: 52, thumbMm: 8 },
  },
  // All stands: vibrato can begin.
  'Marlow Quill': {
    schools: { contact: 'tips_only', fingertip: 'between' },
    rounds: [
      { weeksAgo: 12, not: { waiting_fingers: 'nearly' } },
      { weeksAgo: 2, not: {}, measured: { wrist: 0, finger_angle: 58, gap: 14 } },
    ],
    fit: { chinRestMm: 38, restNearMm: 30, restFarMm: 34, handsOff: 5, bodyAngle: 48, thumbMm: 4 },
    gates: [
      { gate: 'shifting', item: 'thumb_follows' },
      { gate: 'vibrato', item: 'easy_shift' },
      { gate: 'vibrato', item: 'steady_bow' },
      { gate: 'vibrato', item: 'swings_down' },
    ],
  },
  // Only the C string is far off: the elbow does not come round.
  'Isolde Marsh': {
    rounds: [
      { weeksAgo: 8, not: { body_angle: 'nearly', elbow: 'no' }, measured: { body_angle: 15 } },
      { weeksAgo: 1, not: { body_angle: 'nearly', elbow: 'no' }, measured: { body_angle: 18 } },
    ],
    fit: { chinRestMm: 28, restNearMm: 34, restFarMm: 40, handsOff: 5, bodyAngle: 18 },
  },
  'Beck Tarn': {
    rounds: [{ weeksAgo: 5, not: { tension: 'nearly', thumb_joints: 'nearly' } }],
    fit: { chinRestMm: 40, restNearMm: 26, restFarMm: 30, handsOff: 5, bodyAngle: 55, thumbMm: 20 },
  },
  // 1–2 wide and 2–3 narrow: the thumb’s base joint is locked.
  'Nell Farrow': {
    schools: { waiting_fingers: 'rest', thumb_cello: 'between_1_and_2' },
    rounds: [
      {
        weeksAgo: 11,
        not: { cello_sitting: 'nearly', cello_thumb_joints: 'no' },
        measured: { cello_endpin: 240 },
      },
      { weeksAgo: 3, not: { cello_thumb_joints: 'no' }, measured: { cello_endpin: 255, cello_wrist: 6 } },
    ],
    fit: { endpinMm: 255, pegMm: 20, seatMm: 330, lean: 30, note: 'Stool no. 2.' },
  },
  // The extended 1 sharp: pinched, not turned.
  'Aubrey Sill': {
    rounds: [
      { weeksAgo: 9, not: { cello_extension_back: 'no' }, measured: { cello_endpin: 300 } },
      {
        weeksAgo: 1,
        not: { cello_thumb_push: 'nearly', cello_extension_back: 'no' },
        measured: { cello_endpin: 315 },
      },
    ],
    fit: { endpinMm: 315, pegMm: 35, seatMm: 410, lean: 29, thumbMm: -30 },
  },
  'Rook Bramble': {
    schools: { waiting_fingers: 'rest' },
    rounds: [{ weeksAgo: 6, not: { tension: 'nearly', cello_elbow: 'nearly', cello_thumb_push: 'nearly' } }],
    fit: { endpinMm: 340, pegMm: 30, seatMm: 450, lean: 28, note: 'Cushion; stands up after ten minutes.' },
  },
  // A narrow frame on the bass: the hand still turned as on the violin.
  'Lark Penhale': {
    rounds: [
      { weeksAgo: 7, not: { bass_stance: 'no' }, measured: { bass_endpin: 90 } },
      { weeksAgo: 1, not: { bass_hand: 'no' }, measured: { bass_endpin: 120, bass_hand: 26 } },
    ],
    fit: { endpinMm: 120, pegMm: 10, lean: 12 },
  },
  'Denzil Crake': {
    rounds: [
      { weeksAgo: 11, not: { bass_thumb_place: 'nearly' }, measured: { bass_endpin: 180 } },
      { weeksAgo: 2, not: {}, measured: { bass_endpin: 185, bass_hand: 4 } },
    ],
    fit: { endpinMm: 185, pegMm: -5, lean: 13 },
  },
  'Sunniva Holt': { rounds: [{ weeksAgo: 1, not: { size: 'no' } }] },
}
