import { noteName, parseNote, tuningSystem } from '../pitch'
import { PLACE_SIGMA_MM, type Calibration, type Pressing } from '../stop'
import { boardFor } from './board'
import type { FamilyId } from './family'
import { FAMILY_IDS, familyOf } from './lookup'
import type { Stringing } from './stringing'

/**
 * A stringing as it was on a day, in names and numbers: what a record keeps beside it, so that it never changes with the
 * instrument or the player. What rings had taught is kept as numbers, not as finds: it does not change with the method.
 */
export interface StringingSnapshot {
  readonly family: FamilyId
  readonly tuning: readonly string[]
  readonly system: string
  readonly lengthsMm: readonly number[]
  readonly pressing: Pressing | null
  readonly calibration: Calibration | null
}

export type SnapshotFault =
  | { readonly code: 'snapshot_family'; readonly text: string }
  | { readonly code: 'snapshot_tuning'; readonly text: string }
  | { readonly code: 'snapshot_system'; readonly text: string }
  | { readonly code: 'snapshot_lengths' }

export type ReadSnapshot =
  | { readonly ok: true; readonly stringing: Stringing }
  | { readonly ok: false; readonly fault: SnapshotFault }

/** What is kept of a stringing. */
export function snapshotOf({
  family,
  tuning,
  system,
  lengthsMm,
  pressing,
  calibration,
}: Stringing): StringingSnapshot {
  return {
    family: family.id,
    tuning: tuning.map((open) => noteName(open)),
    system: system.id,
    lengthsMm,
    pressing: pressing ?? null,
    calibration: calibration
      ? {
          lengthCorrectionMm: calibration.lengthCorrectionMm,
          nutOffsetMm: calibration.nutOffsetMm,
          lengthVariance: calibration.lengthVariance,
          nutVariance: calibration.nutVariance,
          covariance: calibration.covariance,
        }
      : null,
  }
}

/** The stringing a snapshot was taken of, or why it can no longer be read: a family, a note or a system nobody knows. */
export function readSnapshot(snapshot: StringingSnapshot): ReadSnapshot {
  const { family: familyId, lengthsMm, pressing, calibration } = snapshot
  if (!FAMILY_IDS.includes(familyId)) return fault({ code: 'snapshot_family', text: String(familyId) })
  const tuning = snapshot.tuning.flatMap((name) => parseNote(name) ?? [])
  if (tuning.length < snapshot.tuning.length || tuning.length === 0)
    return fault({ code: 'snapshot_tuning', text: snapshot.tuning.join(' ') })
  const system = tuningSystem(snapshot.system)
  if (!system) return fault({ code: 'snapshot_system', text: snapshot.system })
  const isLength = (mm: number) => Number.isFinite(mm) && mm > 0
  if (![1, tuning.length].includes(lengthsMm.length) || !lengthsMm.every(isLength))
    return fault({ code: 'snapshot_lengths' })
  const family = familyOf(familyId)
  const lengthMm = lengthsMm.reduce((a, b) => a + b) / lengthsMm.length
  return {
    ok: true,
    stringing: {
      family,
      tuning,
      system,
      lengthsMm,
      lengthMm,
      isMeasured: true,
      board: boardFor(family, lengthMm),
      pressing: pressing ?? undefined,
      calibration: calibration ? { ...calibration, scatterMm: PLACE_SIGMA_MM, finds: [] } : undefined,
    },
  }
}

function fault(what: SnapshotFault): ReadSnapshot {
  return { ok: false, fault: what }
}
