import type { z } from 'zod'
import type {
  Finding as CoreFinding,
  HeardBeside as CoreHeard,
  MendCount as CoreMends,
  OwnExercise as CoreOwn,
  PlannedCard as CoreCard,
  PlanReason as CoreReason,
  RecordedName,
  RecordedNote,
} from '#core'
import type { ExerciseName, ExpectedNote, Landing } from './checks'
import type { OwnExercise } from './exercises'
import type { MendCount, PlannedCard, PlanReason } from './plans'
import type { Finding } from './verdicts'

/**
 * What is kept has one description in core and one here, which adds the limits of what is sent. The compiler holds the two equal, field
 * by field and in both directions: a finding, a heard number or a part of an exercise that only one of them has is an error in this
 * file.
 */
export type SameAsCore = [
  Assert<Same<z.infer<typeof Finding>, CoreFinding, 'code'>>,
  Assert<Same<z.infer<typeof ExerciseName>, RecordedName, 'kind'>>,
  Assert<Same<z.infer<typeof ExpectedNote>, RecordedNote>>,
  Assert<Same<z.infer<typeof PlanReason>, CoreReason, 'code'>>,
  Assert<Same<z.infer<typeof PlannedCard>, CoreCard>>,
  Assert<Same<Still<z.infer<typeof OwnExercise>>, CoreOwn>>,
  Assert<Same<z.infer<typeof MendCount>, CoreMends>>,
  Assert<Same<NonNullable<z.infer<typeof Landing>['heard']>, CoreHeard>>,
]

type Assert<True extends true> = True

/** Lists as core has them, which changes none. */
type Still<T> = { [K in keyof T]: T[K] extends (infer E)[] ? readonly E[] : T[K] }

/** Whether each takes the other's values, and has the same fields, in every member of a union told apart by `Tag`. */
type Same<A, B, Tag extends PropertyKey = never> = [A, B] extends [B, A]
  ? [Fields<A, Tag>, Fields<B, Tag>] extends [Fields<B, Tag>, Fields<A, Tag>]
    ? true
    : ['other fields', Exclude<Fields<A, Tag>, Fields<B, Tag>>, Exclude<Fields<B, Tag>, Fields<A, Tag>>]
  : ['other values', A, B]

/** `frame.errorMm`, `frame.where` …; of one that is no union its fields alone. */
type Fields<U, Tag extends PropertyKey> =
  U extends Readonly<Record<Tag, infer Id>>
    ? Id extends string
      ? `${Id}.${keyof U & string}`
      : keyof U & string
    : keyof U & string
