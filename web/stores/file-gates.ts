import {
  gateChecksOf,
  gatesOf,
  knownSystem,
  type Gate,
  type KeptCheckLike,
  type SaidItem,
  type SetupAnswer,
} from '#core'
import type { GateMark, Mastery, Student } from '#contracts'
import { shown, studioDay } from '../words/shown'

export interface ShownGate extends Gate {
  /** The teacher’s own word, where it goes before what was reckoned. */
  readonly said: GateMark | undefined
  readonly standsOpen: boolean
}

/** What of a file says how gates stand. */
export interface GateFile {
  readonly systemId: string
  readonly setup: readonly { readonly itemId: string; readonly answer: SetupAnswer }[]
  readonly checks: readonly KeptCheckLike[]
  readonly mastery: readonly Mastery[]
  readonly said: readonly GateMark[]
}

/** The gates of a student: what was reckoned, and the teacher’s word where there is one. */
export function fileGates(of: Student, { systemId, setup, checks, mastery, said }: GateFile): ShownGate[] {
  const reckoned = gatesOf({
    family: of.family,
    sizeId: of.instrument?.sizeId,
    system: knownSystem(systemId),
    hand: of.hand,
    hasTapes: (of.instrument?.tapes.length ?? 0) > 0,
    setup,
    checks: checks.flatMap((check) => gateChecksOf(of.family, check, shown.timeZone)),
    positions: Object.fromEntries(
      mastery.filter((mark) => mark.kind === 'position').map((mark) => [mark.item, mark.state]),
    ),
    today: studioDay(),
    said: said
      .filter(({ item, state }) => item !== 'gate' && state === 'yes')
      .map(({ item }) => item as SaidItem),
  })
  return reckoned.map((gate) => {
    const own = said.find(
      ({ gate: id, item, state }) => id === gate.id && item === 'gate' && state !== 'reckoned',
    )
    return { ...gate, said: own, standsOpen: own ? own.state === 'open' : gate.isOpen }
  })
}
