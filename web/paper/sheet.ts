import { type MarkSpec, type Stringing, type StripRequest, type StripWords, type TapeMark } from '#core'
import { shortDay } from '../words/dates'
import { noteLabel } from '../words/notes'
import { count, length, listed } from '../words/numbers'
import { markName, shortSystemName } from '../words/trade'
import { studioDay } from '../words/shown'

export const PAPER_NAMES = [
  { value: 'a4', label: 'A4' },
  { value: 'letter', label: 'Letter' },
]
/** The face of a saved SVG, where a reader has it. */
export const SHEET_FONT = 'DejaVu Sans Condensed, DejaVu Sans, sans-serif'

/** One instrument's strip, ready to be laid out. */
export type StripSheet = Omit<StripRequest, 'words'>

export const stripWords: StripWords = {
  nut: ['Nut', 'edge towards the bridge'],
  proof: 'must be 100 mm',
  howTo: [
    'Print at 100 % (“actual size”).',
    'Hold a ruler to the upright line above, from the middle',
    'of one tick to the middle of the other: exactly 100 mm,',
    'the line across 80 mm. If not, do not use the sheet.',
    '',
    'Tune first. Cut along the strip, off the instrument.',
    'Lay its nut line at the nut, straight along the strings.',
    'The strip guides, the ear decides: ring each place.',
    '',
    'Never cut on the board. No solvents near varnish: a',
    'luthier removes stubborn glue.',
  ],
  page: (at, of) => `sheet ${at} of ${of}`,
  join: (placeMm) => `join here, ${length(placeMm)}`,
}

/** What is known of an instrument whose strip is printed. */
export interface SheetFacts {
  readonly who?: string | undefined
  readonly label?: string | undefined
  readonly kind: string
  readonly stringing: Stringing
  readonly marks: readonly TapeMark[]
  /** Asked for, and without a place on these strings: a strip that lacks them says so. */
  readonly withoutPlace: readonly MarkSpec[]
}

/** A strip with its names, for paper chosen later. */
export function sheetOf({ who, label, kind, stringing, marks, withoutPlace }: SheetFacts): SheetDraft {
  return {
    title: [who, label].filter(Boolean).join(' · ') || kind,
    subtitle: [
      kind,
      `${length(stringing.lengthMm)} nut to bridge`,
      shortSystemName(stringing.system.id),
      ...reckonedWith(stringing),
      ...(withoutPlace.length > 0 ? [`no place for ${listed(withoutPlace.map(markName))}`] : []),
      shortDay(studioDay()),
    ].join(' · '),
    marks: marks.map((mark) => ({
      name: markName(mark),
      notes: mark.strings.map((s) => noteLabel(s.note, { octave: false })).join(' '),
      nearEdgeMm: mark.nearEdgeMm,
      middleMm: mark.middleMm,
      farEdgeMm: mark.farEdgeMm,
    })),
  }
}

export type SheetDraft = Omit<StripSheet, 'paper'>

/** What the places reckon with beside the length is never kept silent. */
function reckonedWith({ lengthsMm, pressing, calibration }: Stringing): string[] {
  return [
    ...(lengthsMm.length > 1 ? ['string by string'] : []),
    ...(pressing ? ['with pressing'] : []),
    ...(calibration ? [`corrected by ${count(calibration.finds.length, 'ring')}`] : []),
  ]
}
