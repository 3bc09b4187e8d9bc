import { computed, ref, watch, type Ref } from 'vue'
import {
  placementAt,
  placementContext,
  isSamePlacement,
  keyDiff,
  keyOf,
  keysOf,
  newPatterns,
  note,
  parseKey,
  type Family,
  type AtlasCell,
  type Key,
  type ModeId,
  type Note,
  type Position,
  techniqueOf,
} from '#core'

/** What is looked at in the atlas, as ids: it survives a reload, and another family makes the best of it. */
export interface AtlasChoice {
  keyId: string
  modeId: ModeId
  positionId: string
  stringIndex: number
  /** Bass: in which frame the hand is held; empty for the family's first. */
  frameId: string
  /** A key to compare with; empty for none. */
  compareId: string
  /** From the key compared with to the one shown; else from the one shown to it. */
  isFromCompared: boolean
  /** Hides keys that ask for a pattern the student does not know. */
  knownOnly: boolean
}

export const FIRST_CHOICE: AtlasChoice = {
  keyId: 'D:major',
  modeId: 'major',
  positionId: 'first',
  stringIndex: 1,
  frameId: '',
  compareId: '',
  isFromCompared: true,
  knownOnly: false,
}

/** One row of hands: of a key, or of a position. */
export interface AtlasRow {
  readonly id: string
  readonly cells: readonly AtlasCell[]
  /** Whether it asks for no pattern beyond those known; undefined where nobody is in the lesson. */
  readonly isKnown: boolean | undefined
  /** Strings whose hand differs from the key compared with. */
  readonly changed: readonly boolean[]
}

/** The atlas of one tuning: the keys of a mode in one position, and one key in every position. */
export function useAtlas(
  choice: Ref<AtlasChoice>,
  family: Ref<Family>,
  tuning: Ref<readonly Note[]>,
  /** Ids of the patterns a student has secure; undefined without a student. */
  known: Ref<ReadonlySet<string> | undefined>,
  /** The frame where none was chosen; empty for the family’s first. */
  usualFrameId: Ref<string> = ref(''),
) {
  const context = computed(() => {
    const frameId = choice.value.frameId || usualFrameId.value
    const frame = family.value.frames.some((f) => f.id === frameId) ? frameId : undefined
    return placementContext(family.value, tuning.value, {
      frameId: techniqueOf(family.value.id).choosesFrame ? frame : undefined,
    })
  })
  // What this page wrote itself is read again; anything else in its place is as good as nothing chosen yet.
  const key = computed(() => readKey(choice.value.keyId) ?? keyOf(note('D4'), 'major'))
  const compared = computed(() => readKey(choice.value.compareId))
  const position = computed<Position>(
    () => family.value.positions.find((p) => p.id === choice.value.positionId) ?? family.value.positions[1]!,
  )
  const stringIndex = computed(() => Math.min(choice.value.stringIndex, tuning.value.length - 1))
  /** Those with a signature, and one of more than seven signs where somebody asked for it. */
  const listed = computed(() => keysOf(choice.value.modeId).sort(asTaught))
  // By its id, so that going from key to key leaves the rows as they are.
  const extraId = computed(() => (listed.value.some((k) => k.id === key.value.id) ? '' : key.value.id))
  const keys = computed(() => {
    const extra = readKey(extraId.value)
    return extra ? [...listed.value, extra] : listed.value
  })

  const cellsOf = (k: Key, p: Position) => tuning.value.map((_, i) => placementAt(context.value, k, i, p))
  const comparedCells = computed(() => compared.value && cellsOf(compared.value, position.value))

  function row(id: string, cells: readonly AtlasCell[], others: readonly AtlasCell[] | undefined): AtlasRow {
    return {
      id,
      cells,
      isKnown: known.value && newPatterns(cells, known.value).length === 0,
      changed: cells.map((cell, i) => others !== undefined && !isSamePlacement(cell, others[i])),
    }
  }

  const everyKey = computed(() =>
    keys.value.map((k) => row(k.id, cellsOf(k, position.value), comparedCells.value)),
  )
  const keyRows = computed(() => {
    if (!choice.value.knownOnly || !known.value) return everyKey.value
    return everyKey.value.filter((r) => r.isKnown)
  })
  /** Only what is known, in this position: the key shown is one of those, the nearest to what was shown; where there is none, so it is said. */
  watch(
    () => (choice.value.knownOnly && known.value ? keyRows.value : undefined),
    (rows) => {
      if (!rows || rows.length === 0 || rows.some((r) => r.id === key.value.id)) return
      const at = (id: string) => everyKey.value.findIndex((r) => r.id === id)
      const here = at(key.value.id)
      const [nearest] = [...rows].sort((a, b) => Math.abs(at(a.id) - here) - Math.abs(at(b.id) - here))
      choice.value.keyId = nearest!.id
    },
    { immediate: true },
  )
  const positionRows = computed(() =>
    family.value.positions.map((p) => {
      const others = compared.value && cellsOf(compared.value, p)
      return row(p.id, cellsOf(key.value, p), others)
    }),
  )
  const cells = computed(() => cellsOf(key.value, position.value))
  const cell = computed(() => cells.value[stringIndex.value]!)
  /** What changes under the hand, and between which keys. */
  const diff = computed(() => {
    if (!compared.value || !comparedCells.value) return undefined
    const [then, now] = [
      { key: compared.value, cells: comparedCells.value },
      { key: key.value, cells: cells.value },
    ]
    const [from, to] = choice.value.isFromCompared ? [then, now] : [now, then]
    return { ...keyDiff(from.cells, to.cells), from: from.key, to: to.key }
  })

  return {
    choice,
    family,
    tuning,
    context,
    key,
    compared,
    position,
    stringIndex,
    keys,
    keyRows,
    /** Only what is known was asked for, and nothing is. */
    hasNoKnown: computed(
      () => choice.value.knownOnly && known.value !== undefined && keyRows.value.length === 0,
    ),
    /** Whether a key asks for nothing new in this position; true where nobody asked. */
    isAllowed: (k: Key) =>
      !choice.value.knownOnly ||
      known.value === undefined ||
      newPatterns(cellsOf(k, position.value), known.value).length === 0,
    positionRows,
    cells,
    cell,
    diff,

    chooseKey(k: Key) {
      Object.assign(choice.value, { keyId: k.id, modeId: k.mode.id })
    },
    /** Another mode on the same tonic. */
    chooseMode(modeId: ModeId) {
      const same = keyOf(key.value.tonic, modeId)
      Object.assign(choice.value, { modeId, keyId: same.id })
    },
    moveKey(by: number) {
      const rows = keyRows.value
      const at = rows.findIndex((r) => r.id === key.value.id)
      choice.value.keyId = rows[Math.min(rows.length - 1, Math.max(0, at + by))]?.id ?? key.value.id
    },
    movePosition(by: number) {
      const { positions } = family.value
      const at = positions.findIndex((p) => p.id === position.value.id)
      choice.value.positionId = positions[Math.min(positions.length - 1, Math.max(0, at + by))]!.id
    },
    moveString(by: number) {
      choice.value.stringIndex = Math.min(tuning.value.length - 1, Math.max(0, stringIndex.value + by))
    },
  }
}

export type Atlas = ReturnType<typeof useAtlas>

/** No sign, the sharps from one to seven, the flats from one to seven. */
function asTaught(a: Key, b: Key): number {
  const rank = ({ signature = 0 }: Key) => (signature < 0 ? 100 - signature : signature)
  return rank(a) - rank(b)
}

function readKey(id: string): Key | undefined {
  const parsed = id === '' ? undefined : parseKey(id)
  return parsed?.ok ? parsed.key : undefined
}
