import type { Finding, Verdict } from '../verdict'
import type { FoundFault, Held } from './wishes'

/** A kept check, as far as it says what to practise. */
export interface CheckForPlan {
  /** The same for the same exercise; see the record of what was played. */
  readonly exerciseId: string
  /** ISO date. */
  readonly takenOn: string
  readonly verdict: Verdict
  readonly says?: 'accepted' | 'overruled' | undefined
}

/** A check as it is kept, as far as a plan asks. */
export interface KeptForPlan {
  readonly id: string
  readonly exercise: { readonly kind: string } | null
  readonly verdict: unknown
  readonly decision: { readonly says: 'accepted' | 'overruled' } | null
}

/** A kept check taken on that ISO date. What was played freely, or can no longer be read, is no exercise that comes again. */
export function checkForPlan(
  { id, exercise, verdict, decision }: KeptForPlan,
  takenOn: string,
): CheckForPlan {
  const { notes: _, ...name } = { notes: undefined, ...(exercise ?? { kind: 'free' }) }
  return {
    exerciseId: name.kind === 'free' ? id : JSON.stringify(name),
    takenOn,
    verdict: verdict as Verdict,
    says: decision?.says,
  }
}

/** What a verdict only leans to, and what it tells beside the fault in the hand, against what it names. Chosen. */
const CERTAINTY = { named: 1, beside: 0.7, maybe: 0.5 }

/**
 * What the newest check of each exercise found, the newest first; and what earlier checks of the same exercise found that none has since,
 * with the days on which it held.
 *
 * @param checks in any order
 */
export function faultsOf(checks: readonly CheckForPlan[]): { found: FoundFault[]; held: Held[] } {
  const newestFirst = [...checks].sort((a, b) => (a.takenOn < b.takenOn ? 1 : a.takenOn > b.takenOn ? -1 : 0))
  const found = new Map<string, FoundFault>()
  const looked = new Map<string, CheckForPlan[]>()
  for (const check of newestFirst) {
    const own = looked.get(check.exerciseId) ?? []
    looked.set(check.exerciseId, [...own, check])
    if (own.length > 0) continue
    for (const { finding, certainty } of toldBy(check.verdict)) {
      const key = findingKey(finding)
      const fault = { finding, takenOn: check.takenOn, certainty, says: check.says }
      if (!found.has(key)) found.set(key, fault)
    }
  }
  const held = new Map<string, Held>()
  for (const own of looked.values())
    for (const [age, check] of own.entries()) {
      if (check.says === 'overruled') continue
      // Judged, and without it: a check with too few notes says nothing.
      const since = own.slice(0, age).filter(({ verdict }) => isJudged(verdict))
      for (const { finding, certainty } of toldBy(check.verdict)) {
        const key = findingKey(finding)
        if (certainty < CERTAINTY.named || found.has(key) || held.has(key) || since.length === 0) continue
        if (since.some(({ verdict }) => tells(verdict, key))) continue
        held.set(key, { finding, heldOn: since.map(({ takenOn }) => takenOn).reverse() })
      }
    }
  return { found: [...found.values()], held: [...held.values()] }
}

/** Enough was played for a verdict. */
export function isJudged({ outcome }: Verdict): boolean {
  return outcome === 'in_tune' || outcome === 'explained' || outcome === 'several'
}

function toldBy(verdict: Verdict): { finding: Finding; certainty: number }[] {
  const of = (findings: readonly Finding[] | undefined, certainty: number) =>
    (findings ?? []).map((finding) => ({ finding, certainty }))
  return [
    ...of('findings' in verdict ? verdict.findings : [], CERTAINTY.named),
    ...of(verdict.outcome === 'not_enough_notes' && verdict.leans ? verdict.maybe : [], CERTAINTY.maybe),
    ...of(verdict.beside, CERTAINTY.beside),
  ]
}

/** Whether a verdict tells a fault, by its {@link findingKey}, as its own or beside another. */
export function tells(verdict: Verdict, key: string): boolean {
  return toldBy(verdict).some(({ finding }) => findingKey(finding) === key)
}

/** The same for the same fault of a hand, whatever its size: a narrow frame and a wide one are two. */
export function findingKey(finding: Finding): string {
  const signed =
    'offsetMm' in finding
      ? finding.offsetMm
      : 'errorMm' in finding
        ? finding.errorMm
        : 'cents' in finding
          ? finding.cents
          : 1
  const where = 'where' in finding ? finding.where : 'string' in finding ? finding.string : ''
  return [finding.code, 'finger' in finding ? finding.finger : '', where, Math.sign(signed)].join(' ')
}
