import { defineStore } from 'pinia'
import { onScopeDispose, shallowReactive, watch, type Ref } from 'vue'
import {
  lineId,
  locksOf,
  type FamilyId,
  type KeptPlace,
  type KeptShorter,
  type Lock,
  type ScaleLine,
} from '#core'
import type { KeptFingering } from '#contracts'
import { call } from '../api/client'
import { useOutbox } from './outbox'

/** The studio's own fingerings: one word for every room that shows, plays or prints a scale. */
export const useFingerings = defineStore('fingerings', () => {
  const outbox = useOutbox()
  const byFamily = shallowReactive(new Map<FamilyId, readonly KeptFingering[]>())
  /** A word is newer than any answer that was asked for before it. */
  let moment = 0
  const saidAt = new Map<FamilyId, number>()

  async function load(family: FamilyId): Promise<void> {
    const asked = ++moment
    const kept = await call('fingerings.list', { query: { family } })
    if ((saidAt.get(family) ?? 0) < asked) byFamily.set(family, kept)
  }

  function ownOf(line: ScaleLine): KeptFingering | undefined {
    const id = lineId(line)
    return byFamily.get(line.family)?.find((kept) => lineId(kept.line) === id)
  }

  return {
    load,
    ownOf,
    /** The studio's fingering of a line, note by note; nothing where the usual one holds. */
    locksOf: (line: ScaleLine): readonly Lock[] => locksOf(ownOf(line)?.notes ?? []),
    /** What the studio keeps of the same line over fewer octaves. */
    shorterOf(line: ScaleLine): KeptShorter {
      const fewer = ([1, 2] as const).filter((octaves) => octaves < line.octaves)
      return Object.fromEntries(
        fewer.flatMap((octaves) => {
          const own = ownOf({ ...line, octaves })
          return own ? [[octaves, locksOf(own.notes)]] : []
        }),
      )
    },

    /** Shown at once, and again as the server kept it; without notes the usual fingering holds again. */
    async keep(
      line: ScaleLine,
      name: string,
      notes: readonly KeptPlace[] | null,
      settled: readonly number[],
    ): Promise<void> {
      const { family } = line
      const id = lineId(line)
      saidAt.set(family, ++moment)
      const said = moment
      const others = (byFamily.get(family) ?? []).filter((kept) => lineId(kept.line) !== id)
      const named = { ...line, tuning: [...line.tuning] }
      const own = notes && {
        line: named,
        notes: sent(notes),
        settled: [...settled],
        by: '',
        at: new Date().toISOString(),
      }
      byFamily.set(family, own ? [...others, own] : others)
      try {
        const kept = await outbox.send(
          'fingerings.keep',
          { body: { line: named, notes: notes && sent(notes), settled: [...settled] } },
          { what: `the fingering of ${name}` },
        )
        if (saidAt.get(family) === said) byFamily.set(family, kept)
      } catch (error) {
        // Not kept: what the server has is shown again.
        void load(family)
        throw error
      }
    },
    forget: () => byFamily.clear(),
  }
})

function sent(places: readonly KeptPlace[]): KeptFingering['notes'] {
  return places.map(({ harmonic, ...place }) => ({
    ...place,
    ...(harmonic === 3 || harmonic === 4 ? { harmonic } : {}),
  }))
}

/** The same, fetched for the family that is looked at; of none while nobody asks. */
export function useFingeringsOf(family: Ref<FamilyId | undefined>) {
  const fingerings = useFingerings()
  const outbox = useOutbox()
  const load = () => family.value && void fingerings.load(family.value)
  watch(family, load, { immediate: true })
  onScopeDispose(outbox.onArrival(load))
  return fingerings
}
