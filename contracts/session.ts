import { z } from 'zod'
import { Id, Instant, SystemId, Version } from './common'
import { NewPassword, Role } from './people'
import { StudioSettings } from './settings'

export const Credentials = z
  .object({
    email: z.string().trim().min(1, { error: 'Type your e-mail address.' }).max(200),
    password: z.string().min(1, { error: 'Type your password.' }).max(500),
    /** Of the second factor, where there is one: six figures, or a spare code. */
    code: z.string().trim().max(40).optional(),
  })
  .meta({
    id: 'Credentials',
    examples: [{ email: 'teacher@port-ellery.example', password: 'a long password' }],
  })

export const PasswordChange = z
  .object({
    current: z.string().min(1, { error: 'Type the password you have now.' }).max(500),
    next: NewPassword,
  })
  .meta({
    id: 'PasswordChange',
    examples: [{ current: 'the old password', next: 'ferry steps at midnight' }],
  })

export const DEVICES = ['computer', 'tablet', 'phone', 'unknown'] as const

/** One place where somebody is signed in. */
export const OpenSession = z
  .object({
    id: Id,
    device: z.enum(DEVICES),
    since: Instant,
    /** To within an hour. */
    seenAt: Instant,
    /** When it ends, used or not. */
    endsAt: Instant,
    isThis: z.boolean(),
  })
  .meta({ id: 'OpenSession' })

export const Session = z
  .object({
    user: z.object({ id: Id, name: z.string(), email: z.string(), role: Role }),
    /** May look at how the server is. */
    isOperator: z.boolean(),
    studio: z.object({
      id: Id,
      version: Version,
      name: z.string(),
      system: SystemId,
      settings: StudioSettings,
    }),
    /** Send it back as the X-CSRF-Token header of every change. */
    csrfToken: z.string(),
  })
  .meta({ id: 'Session' })

/** What stands at the door: who is signed in already, and the demo's key where everybody may have it. */
export const Door = z
  .object({
    session: Session.nullable(),
    /** Only on a machine of one's own, as long as the demo studio is on. */
    demo: z.object({ email: z.string(), password: z.string() }).nullable(),
  })
  .meta({ id: 'Door' })
