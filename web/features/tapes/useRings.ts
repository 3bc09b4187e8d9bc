import { computed } from 'vue'
import {
  AUDIBLE_STRENGTH,
  centsOnBed,
  MEASURED_PRIOR,
  NINETEEN_IN_TWENTY,
  noteName,
  placeOnBed,
  ringChecks,
  sigmaOnBed,
  STRONG_STRENGTH,
  type Ring,
  type RingCheck,
  type TapeMark,
} from '#core'
import { useBenchStore } from '../../stores/bench'
import { mm } from '../../words/numbers'
import { markName, ringWords } from '../../words/trade'
import type { BenchFind } from './useBench'

/** One mark on one string, and the open strings that answer it. */
export interface RingRow {
  readonly mark: TapeMark
  readonly check: RingCheck
  readonly placeMm: number
  readonly play: string
  readonly string: string
  readonly heard: readonly HeardRing[]
}

export interface HeardRing {
  readonly ring: Ring
  readonly open: string
  readonly words: string
  readonly strength: 'strong' | 'clear' | 'faint'
}

const CLEAR_STRENGTH = 0.2

export function strengthOf(strength: number): HeardRing['strength'] {
  if (strength >= STRONG_STRENGTH) return 'strong'
  return strength >= CLEAR_STRENGTH ? 'clear' : 'faint'
}

/** What rings at each mark of the bench, and what was found there. */
export function useRings() {
  const store = useBenchStore()
  const { bench } = store

  function rowsOf(mark: TapeMark): RingRow[] {
    const stopped = mark.strings.map((string) => string.note)
    return ringChecks(bench.tuning.value, stopped, bench.system.value).map((check) => ({
      mark,
      check,
      placeMm: placeOnBed(bench.bed.value, check.stringIndex, check.cents),
      play: noteName(check.stopped),
      string: noteName(bench.tuning.value[check.stringIndex]!),
      heard: check.rings
        .filter((ring) => ring.strength >= AUDIBLE_STRENGTH)
        .map((ring) => ({
          ring,
          open: noteName(ring.open, { octave: false }),
          words: ringWords(ring),
          strength: strengthOf(ring.strength),
        })),
    }))
  }
  const rows = computed(() => bench.marks.value.flatMap(rowsOf))
  /** Marks that nothing answers, with the nearest miss: why, and by how much. */
  const silent = computed(() =>
    bench.marks.value.filter((mark) => !rows.value.some((row) => row.mark.id === mark.id)),
  )

  /** Finds as the fit sees them: how far off, whether questioned, and where they may really belong. */
  const judgedFinds = computed(() =>
    bench.usedFinds.value.map((find, i) => {
      const judged = bench.fit.value!.finds[i]!
      return { find, ...judged, belongs: judged.isQuestioned ? belongsElsewhere(find) : undefined }
    }),
  )

  /** A find that fits another string or mark better than its own, in words. */
  function belongsElsewhere(find: BenchFind): string | undefined {
    for (const mark of bench.marks.value)
      for (const string of mark.strings) {
        const name = noteName(string.open)
        if (name === find.string && noteName(string.note) === find.note) continue
        const sigma = Math.hypot(sigmaOnBed(bench.bed.value, string.cents) ?? 0, MEASURED_PRIOR.placeSigmaMm)
        if (Math.abs(string.placeMm - find.placeMm) > NINETEEN_IN_TWENTY * sigma) continue
        return `${mm(find.placeMm)} mm is where the ${markName(mark)} lies: ${noteName(string.note)} on ${noteName(string.open, { octave: false })}.`
      }
    const index = bench.tuning.value.findIndex((open) => noteName(open) === find.string)
    const off = index < 0 ? NaN : centsOnBed(bench.bed.value, index, find.placeMm) - find.cents
    return Number.isFinite(off)
      ? `There it would sound ${Math.round(Math.abs(off))} cents ${off > 0 ? 'sharp' : 'flat'}.`
      : undefined
  }

  return { rows, rowsOf, silent, judgedFinds }
}
