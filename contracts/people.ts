import { z } from 'zod'
import { Id, Instant, line } from './common'
import { SHORTEST_PASSWORD } from './limits'

/** An owner also lets teachers in and out, and reads who saw and changed what. */
export const ROLES = ['owner', 'teacher'] as const
export const Role = z.enum(ROLES)
export type Role = (typeof ROLES)[number]

const Email = z.email({ error: 'Give an e-mail address, as in hester@harbour.example.' }).max(200)

export const NewPassword = z
  .string()
  .min(SHORTEST_PASSWORD, {
    error: `Take at least ${SHORTEST_PASSWORD} characters: a few words are easy to keep.`,
  })
  .max(500)

/** Somebody who teaches in the studio, or did. */
export const Person = z
  .object({
    id: Id,
    name: z.string(),
    email: z.string(),
    role: Role,
    isSelf: z.boolean(),
    /** Has come in at least once: a password was chosen. */
    hasPassword: z.boolean(),
    hasSecondFactor: z.boolean(),
    /** To within an hour; null where no session is open. */
    seenAt: Instant.nullable(),
    /** Until when a key that was given out opens the door once; null where none does. */
    keyUntil: Instant.nullable(),
    leftAt: Instant.nullable(),
  })
  .meta({ id: 'Person' })

export const PersonDraft = z
  .object({ name: line('the name'), email: Email, role: Role.default('teacher') })
  .meta({ id: 'PersonDraft', examples: [{ name: 'Wren Tallow', email: 'wren@harbour.example' }] })

export const PersonChange = z
  .object({ role: Role.optional(), hasLeft: z.boolean().optional() })
  .meta({ id: 'PersonChange', examples: [{ role: 'teacher' }] })

/** Opens the door once, for choosing a password. It is shown once, and kept as a hash. */
export const OneTimeKey = z
  .object({ email: z.string(), key: z.string(), until: Instant })
  .meta({ id: 'OneTimeKey' })

export const Invited = z.object({ person: Person, key: OneTimeKey }).meta({ id: 'Invited' })

export const KeyUse = z
  .object({
    email: z.string().trim().min(1, { error: 'Type your e-mail address.' }).max(200),
    key: z.string().trim().min(1, { error: 'Type the key that you were given.' }).max(100),
    password: NewPassword,
  })
  .meta({
    id: 'KeyUse',
    examples: [{ email: 'wren@harbour.example', key: 'A1B2-C3D4', password: 'ferry steps at midnight' }],
  })

/** Six figures from a program of the teacher's own (RFC 6238), or one of the spare codes. */
const Code = z.string().trim().min(1, { error: 'Type the six figures.' }).max(40)

export const SecondFactor = z
  .object({ since: Instant.nullable(), spareCodes: z.int().min(0) })
  .meta({ id: 'SecondFactor' })

export const SecondFactorBegin = z
  .object({ current: z.string().min(1, { error: 'Type your password.' }).max(500) })
  .meta({ id: 'SecondFactorBegin', examples: [{ current: 'the password' }] })

/** What the program must be told, once. */
export const SecondFactorKey = z
  .object({ secret: z.string(), uri: z.string() })
  .meta({ id: 'SecondFactorKey' })

export const SecondFactorCode = z
  .object({ code: Code })
  .meta({ id: 'SecondFactorCode', examples: [{ code: '123456' }] })

export const SpareCodes = z.object({ codes: z.array(z.string()) }).meta({ id: 'SpareCodes' })
