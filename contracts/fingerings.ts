import { z } from 'zod'
import { FAMILY_IDS, MOST_STRINGS, FEWEST_STRINGS } from '#core'
import { Instant, NoteText, PlayedFinger } from './common'

/** Three octaves of a chromatic scale, up and down. */
const MOST_NOTES = 73

const Line = z.object({
  family: z.enum(FAMILY_IDS),
  /** Open strings, lowest first, as `D4`. */
  tuning: z.array(NoteText).min(FEWEST_STRINGS).max(MOST_STRINGS),
  frameId: z.string().min(1).max(40),
  keyId: z.string().min(1).max(40),
  figure: z.enum(['scale', 'arpeggio']),
  octaves: z.union([z.literal(1), z.literal(2), z.literal(3)]),
})

const Place = z.object({
  stringIndex: z
    .int()
    .min(0)
    .max(MOST_STRINGS - 1),
  finger: PlayedFinger,
  /** Touched at a third or a quarter of the string. */
  harmonic: z.union([z.literal(3), z.literal(4)]).optional(),
  /** Settled: whether the hand shifts to it. */
  isShift: z.boolean().optional(),
})

const kept = {
  line: Line,
  /** Up and down. */
  notes: z.array(Place).min(3).max(MOST_NOTES),
  /** Those that the teacher settled, by number; the others were fingered around them. */
  settled: z.array(z.int().min(0).max(MOST_NOTES)).max(MOST_NOTES),
}

/** A studio's own fingering of a scale or arpeggio. */
export const KeptFingering = z.object({ ...kept, by: z.string(), at: Instant }).meta({ id: 'KeptFingering' })

export const FingeringDraft = z.object({ ...kept, notes: kept.notes.nullable() }).meta({
  id: 'FingeringDraft',
  examples: [
    {
      line: {
        family: 'violin',
        tuning: ['G3', 'D4', 'A4', 'E5'],
        frameId: 'fourth',
        keyId: 'D:major',
        figure: 'scale',
        octaves: 1,
      },
      notes: null,
      settled: [],
    },
  ],
})

/** Of one family, or of all. */
export const FingeringsQuery = z.object({ family: z.enum(FAMILY_IDS).optional() })
