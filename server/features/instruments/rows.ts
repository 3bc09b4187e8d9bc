import { v7 as uuid } from 'uuid'
import { familyFault, familyOf, noteName, notesOf, sizeOf, tuningFault, type FamilyId } from '#core'
import { tuningSentence } from '#contracts'
import type { HandlerInput } from '#contracts'
import type { InstrumentRow } from '../../db/rows'
import { fieldProblem } from '../../http/problem-error'

/** An instrument as it is kept when it is written down; what cannot be so is said of its field. */
export function instrumentRow(
  draft: Pick<HandlerInput<'instruments.create'>['body'], 'label' | 'family' | 'sizeId' | 'tuning'>,
  tuningPath: string,
  now: Date,
  row?: number,
): Omit<InstrumentRow, 'studioId'> {
  insistOnSize(draft.family, draft.sizeId, row === undefined ? 'sizeId' : `rows.${row}.sizeId`)
  return {
    id: uuid(),
    version: 1,
    label: draft.label,
    family: draft.family,
    sizeId: draft.sizeId,
    tuning: draft.tuning
      ? openStrings(draft.tuning, tuningPath)
      : familyOf(draft.family).tuning.map((n) => noteName(n)),
    pressing: null,
    warmHands: false,
    createdAt: now,
    removedAt: null,
  }
}

export function insistOnSize(familyId: FamilyId, sizeId: string, path = 'sizeId'): void {
  if (familyFault(familyOf(familyId)))
    throw fieldProblem(
      path.replace(/sizeId$/, 'family'),
      `Frets give every note of a ${familyOf(familyId).name} its place: it is not kept here.`,
    )
  const family = familyOf(familyId)
  if (!sizeOf(family, sizeId))
    throw fieldProblem(path, `Choose a ${family.name} size: ${family.sizes.map((s) => s.id).join(', ')}.`)
}

/** Open strings as they are stored, spelled one way. */
export function openStrings(texts: readonly string[], path: string): string[] {
  const notes = notesOf(texts)
  const fault = tuningFault(notes)
  if (fault) throw fieldProblem(path, tuningSentence(fault, notes))
  return notes.map((n) => noteName(n))
}
