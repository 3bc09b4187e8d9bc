import {
  alternativesFor,
  familyOf,
  parseKey,
  placementContext,
  type Alternative,
  type FamilyId,
  type FigureId,
  type FingeringOptions,
  type KeptShorter,
  type Lock,
  type Note,
} from '#core'

/** Which line other fingerings are asked for. */
export interface AlternativesOrder {
  readonly id: number
  readonly family: FamilyId
  readonly tuning: readonly Note[]
  readonly frameId: string
  readonly keyId: string
  readonly figure: FigureId
  readonly octaves: 1 | 2 | 3
  readonly locks: readonly Lock[]
  readonly kept: KeptShorter
  readonly options: Partial<FingeringOptions>
}

export interface AlternativesReport {
  readonly id: number
  readonly alternatives: readonly Alternative[]
}

/** What the worker answers. */
export function findAlternatives(order: AlternativesOrder): AlternativesReport {
  const { id, family, tuning, frameId, keyId, figure, octaves, locks, kept, options } = order
  const parsed = parseKey(keyId)
  const context = placementContext(familyOf(family), tuning, { frameId })
  const alternatives = parsed.ok
    ? alternativesFor(context, { key: parsed.key, figure, octaves, locks, kept }, options)
    : []
  return { id, alternatives }
}
