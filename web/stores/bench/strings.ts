import { computed, type Ref } from 'vue'
import {
  familyOf,
  findsOn,
  heightFault,
  judgeStrings,
  sourceOf,
  knownSystem,
  notesOf,
  parseNote,
  stringingOf,
  tuningFault,
  typicalPressing,
  type Note,
  type PressingChoice,
  type StringFind,
  type Stringing,
} from '#core'
import { tuningSentence, type Instrument } from '#contracts'
import type { BenchSetup } from './setup'
import { useTypedLengths } from './typed-lengths'
import { asLetters, labelOfName, noteLabel } from '../../words/notes'

/** A place found by ring, wherever it is kept. */
export interface BenchFind {
  readonly id: string
  readonly string: string
  readonly note: string
  readonly cents: number
  readonly placeMm: number
  readonly isTrusted: boolean
  readonly foundOn: string
}

/** A kept length is laid out to a tenth of a millimetre. */
const KEPT_WITHIN_MM = 0.06

/** The strings on the bench: what is typed, checked, and the stringing that follows from it, the instrument and the rings. */
export function useBenchStrings(
  setup: Ref<BenchSetup>,
  instrument: Ref<Instrument | undefined>,
  finds: Ref<readonly BenchFind[]>,
) {
  const family = computed(() => familyOf(setup.value.familyId))

  const typedTuning = computed(() => readTuning(setup.value.tuningText))
  const tuning = computed<readonly Note[]>(() => {
    if (typedTuning.value.ok && typedTuning.value.notes.length > 0) return typedTuning.value.notes
    return instrument.value ? notesOf(instrument.value.tuning) : family.value.tuning
  })

  const lengths = useTypedLengths(setup, family)
  const pressingFault = computed(() =>
    setup.value.pressingMode === 'measured'
      ? (heightFault(setup.value.nutHeightMm) ?? heightFault(setup.value.endHeightMm))
      : undefined,
  )
  /** Heights that no board has are a fault and move nothing. */
  const pressing = computed<PressingChoice | undefined>(() => {
    return pressingFault.value ? undefined : pressingChoiceOf(setup.value)
  })
  /** Finds with the strings they are on; those on a string that is no longer there say nothing. */
  const usedFinds = computed(() =>
    findsOn(tuning.value, finds.value).map(({ find, stringIndex }) => ({ ...find, stringIndex })),
  )
  /** What was kept lies on the bench as one length, however it was measured: as long as nobody types another. */
  const lengthSource = computed(() => {
    const kept = instrument.value?.measurement
    const [typed = 0] = lengths.usableMm.value ?? []
    const isKept = setup.value.method === 'bridge' && kept && Math.abs(kept.lengthMm - typed) < KEPT_WITHIN_MM
    return isKept ? sourceOf(kept) : setup.value.method
  })
  /** The strings as they are known, and with what rang since. */
  function strungWith(more: readonly StringFind[]): Stringing {
    const usable = lengths.usableMm.value
    // Between a string more in the tuning and a field more for its length there is a moment with too few.
    const fits = usable && (usable.length === 1 || usable.length === tuning.value.length)
    return stringingOf({
      family: family.value,
      sizeId: setup.value.sizeId,
      system: knownSystem(setup.value.systemId),
      tuning: tuning.value,
      lengthsMm: fits ? usable : undefined,
      lengthSource: lengthSource.value,
      pressing: pressing.value,
      finds: [...usedFinds.value, ...more],
    })
  }
  const stringing = computed(() => strungWith([]))
  const bridge = computed(() => {
    const { lengthsMm } = stringing.value
    return lengthsMm.length > 1 ? judgeStrings(family.value, lengthsMm) : undefined
  })

  return {
    family,
    typedTuning,
    tuning,
    lengths,
    pressingFault,
    typicalPressing: computed(() => typicalPressing(family.value, stringing.value.lengthMm)),
    usedFinds,
    stringing,
    strungWith,
    bridge,
  }
}

/** How pressing is reckoned with on this bench. */
export function pressingChoiceOf(setup: BenchSetup): PressingChoice {
  const { pressingMode: mode, nutHeightMm, endHeightMm, material, materials } = setup
  return { mode, nutHeightMm, endHeightMm, material, materials: materials.length > 0 ? [...materials] : null }
}

export type ReadTuning =
  | { readonly ok: true; readonly notes: readonly Note[] }
  | { readonly ok: false; readonly message: string }

/** Open strings as typed, lowest first; nothing typed is no fault. */
function readTuning(text: string): ReadTuning {
  const words = text.split(/[\s,;]+/).filter(Boolean)
  const notes: Note[] = []
  for (const word of words) {
    const parsed = parseNote(asLetters(word))
    if (!parsed)
      return {
        ok: false,
        message: `“${word}” is no note: name each string with its octave, as in ${labelOfName('G3', {})}.`,
      }
    notes.push(parsed)
  }
  const fault = notes.length === 0 ? undefined : tuningFault(notes)
  return fault ? { ok: false, message: tuningSentence(fault, notes) } : { ok: true, notes }
}

/** A field for the length of each string, as many as there are strings; what is typed in the others is kept. */
export function asManyAs(strings: number, texts: readonly string[]): string[] {
  return Array.from({ length: strings }, (_, i) => texts[i] ?? '')
}

/** The name of an open string without its octave. */
export function stringName(open: Note | undefined): string {
  return open ? noteLabel(open, { octave: false }) : ''
}
