import { useSessionStorage } from '@vueuse/core'
import { computed, type Ref } from 'vue'
import { lineId, locksOf, placesOfFingering, type FingeredNote, type Lock, type ScaleLine } from '#core'
import { useFingeringsOf } from '../../stores/fingerings'
import type { Patterns } from './usePatterns'

/** What a teacher changes of one printed line, and what the studio keeps of it. Changes stay over a reload until they are kept or dropped. */
export function useOwnFingering(patterns: Patterns, line: Ref<ScaleLine | undefined>) {
  const { atlas } = patterns
  const fingerings = useFingeringsOf(computed(() => atlas.family.value.id))
  const drafts = useSessionStorage<Record<string, Lock[]>>('jadefell.fingering', {})
  const id = computed(() => (line.value ? lineId(line.value) : ''))
  const own = computed(() => (line.value ? fingerings.ownOf(line.value) : undefined))
  const draft = computed(() => drafts.value[id.value])
  /** Notes settled by the teacher: of the draft, else of what the studio keeps. */
  const settled = computed(
    () => new Set(draft.value ? draft.value.map(({ index }) => index) : (own.value?.settled ?? [])),
  )

  return {
    own,
    isChanged: computed(() => draft.value !== undefined),
    settled,
    /** What holds for the line: the draft, else what the studio keeps, note by note. */
    locks: computed<readonly Lock[]>(() => draft.value ?? locksOf(own.value?.notes ?? [])),
    /** What the studio keeps of the line over fewer octaves. */
    shorter: computed(() => (line.value ? fingerings.shorterOf(line.value) : {})),

    /** Settles one thing of a note; the rest is fingered around it. */
    settle(index: number, change: Partial<Omit<Lock, 'index'>>) {
      const before = draft.value ?? fromKept()
      const old = before.find((lock) => lock.index === index)
      const others = before.filter((lock) => lock.index !== index)
      drafts.value = { ...drafts.value, [id.value]: [...others, { ...old, ...change, index }] }
    },
    /** Takes one note back. */
    release(index: number) {
      const left = (draft.value ?? fromKept()).filter((lock) => lock.index !== index)
      // Nothing settled, and nothing kept: the usual one again.
      if (left.length === 0 && !own.value) drop()
      else drafts.value = { ...drafts.value, [id.value]: left }
    },
    /** What was changed and not kept. */
    drop,
    /** From now on the studio’s own; without notes the usual one again. */
    async keep(name: string, notes: readonly FingeredNote[] | null) {
      if (!line.value) return
      await fingerings.keep(
        line.value,
        name,
        notes && placesOfFingering(notes, draft.value),
        notes ? [...settled.value] : [],
      )
      drop()
    },
  }

  function drop() {
    const { [id.value]: _, ...others } = drafts.value
    drafts.value = others
  }

  /** The settled notes of what the studio keeps, as a new draft begins with them. */
  function fromKept(): Lock[] {
    const kept = own.value
    return kept ? locksOf(kept.notes).filter(({ index }) => kept.settled.includes(index)) : []
  }
}
