import { computed, type Ref } from 'vue'
import { DOUBLE_STOP_KINDS, doubleStops, drillNotes, drillsFor, type DoubleStopKind, type Drill } from '#core'
import { useBench } from '../../stores/bench'
import { drillFaultSentence } from '../../words/drills'
import type { LineChoice, Run } from './line-choice'
import type { Patterns } from './usePatterns'

/** Drills and double stops of a place on the board, and the one that is chosen. */
export function useDrills(choice: Ref<LineChoice>, patterns: Patterns) {
  const bench = useBench()
  const { atlas } = patterns
  const drills = computed(() => drillsFor(atlas.family.value.id))
  const drill = computed(() => drills.value.find((d) => d.id === choice.value.figure))
  const doubled = computed(() => DOUBLE_STOP_KINDS.find((kind) => kind === choice.value.figure))
  const isScale = computed(() => !drill.value && !doubled.value)
  /** Those that this hand can play; the chosen one stays and says why it cannot. */
  const offered = computed(() => drills.value.filter((d) => d.id === choice.value.figure || drilled(d).ok))
  const offeredDoubles = computed(() =>
    DOUBLE_STOP_KINDS.filter((kind) => kind === doubled.value || doublesOf(kind).length > 0),
  )

  function drilled(one: Drill) {
    const { context, key, stringIndex, position } = atlas
    return drillNotes(context.value, one, key.value, stringIndex.value, position.value, 1)
  }
  function doublesOf(kind: DoubleStopKind) {
    return doubleStops(atlas.context.value, bench.stringing, {
      key: atlas.key.value,
      kind,
      position: atlas.position.value,
      reachMm: patterns.student?.hand?.comfortableSpanMm ?? null,
    })
  }
  const doubles = computed(() => (doubled.value ? doublesOf(doubled.value) : []))
  /** Those that are wider than the hand measured. */
  const tooWide = computed(() => doubles.value.filter(({ isInReach }) => isInReach === false))

  /** The drill or the double stops that are chosen; undefined of a scale. */
  const run = computed<Run | undefined>(() => {
    if (drill.value) {
      const made = drilled(drill.value)
      return made.ok ? { notes: made.notes, fault: '' } : { notes: [], fault: drillFaultSentence(made.code) }
    }
    if (!doubled.value) return undefined
    return doubles.value.length > 0
      ? { notes: doubles.value.map(({ lower, upper }) => ({ ...lower, second: upper })), fault: '' }
      : { notes: [], fault: drillFaultSentence('fingers_missing') }
  })

  return { drill, doubled, isScale, offered, offeredDoubles, tooWide, run }
}
