import { v7 as uuid } from 'uuid'
import {
  familyOf,
  fingerScale,
  lineId,
  locksOf,
  noteName,
  notesOf,
  parseKey,
  placementContext,
  tuningFault,
  type FamilyId,
} from '#core'
import type { KeptFingering, HandlerInput } from '#contracts'
import type { OwnFingeringRow } from '../../db/rows'
import type { By } from '../../db/studio-store'
import type { Call } from '../../http/call'
import { fieldProblem } from '../../http/problem-error'

type Draft = HandlerInput<'fingerings.keep'>['body']

const IN_ORDER: [string, string][] = [
  ['recordedAt', 'ASC'],
  ['id', 'ASC'],
]

/** The studio's own fingerings, as its teachers said last. */
export function fingeringService({ store, signedIn, now }: Pick<Call, 'store' | 'signedIn' | 'now'>) {
  const { ownFingering } = store.models

  async function list(family?: FamilyId): Promise<KeptFingering[]> {
    const rows = await store.written(ownFingering, family ? { family } : {}, { order: IN_ORDER })
    const newest = new Map<string, By<OwnFingeringRow>>(rows.map((row) => [row.line, row]))
    return [...newest.values()].flatMap(({ named, notes, settled, by, recordedAt }) =>
      notes === null
        ? []
        : [{ line: named, notes: [...notes], settled: [...settled], by, at: recordedAt.toISOString() }],
    )
  }

  return {
    list,

    async keep(draft: Draft): Promise<KeptFingering[]> {
      insistOnHands(draft)
      const { line, notes, settled } = draft
      await store.insert(ownFingering, [
        {
          id: uuid(),
          userId: signedIn.session.user.id,
          family: line.family,
          line: lineId(line),
          named: line,
          notes,
          settled,
          recordedAt: now,
        },
      ])
      return list(line.family)
    },
  }
}

/** Every note is one of the line's, and every hand can be held. */
function insistOnHands({ line, notes }: Draft): void {
  const family = familyOf(line.family)
  const tuning = notesOf(line.tuning)
  if (tuningFault(tuning)) throw fieldProblem('line.tuning', 'Give open strings, the lowest first.')
  if (!family.frames.some(({ id }) => id === line.frameId))
    throw fieldProblem('line.frameId', `Choose one of the ${family.name}’s frames.`)
  const key = parseKey(line.keyId)
  if (!key.ok) throw fieldProblem('line.keyId', 'Give a key, as in D:major.')
  if (notes === null) return
  const context = placementContext(family, tuning, { frameId: line.frameId })
  const scale = fingerScale(context, {
    key: key.key,
    figure: line.figure,
    octaves: line.octaves,
    locks: locksOf(notes),
  })
  if (!scale.ok && scale.code === 'scale_out_of_range')
    throw fieldProblem('line.octaves', 'The strings do not hold so many octaves.')
  if (!scale.ok)
    throw fieldProblem(
      `notes.${scale.lock.index}`,
      `No hand plays ${scale.note} with this finger on this string.`,
    )
  if (scale.notes.length !== notes.length)
    throw fieldProblem(
      'notes',
      `Give ${scale.notes.length} notes, up and down; the last is ${noteName(scale.notes.at(-1)!.note)}.`,
    )
}
