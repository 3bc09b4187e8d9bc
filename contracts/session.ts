import { z } from 'zod'
import { Id, SystemId } from './common'

export const Credentials = z
  .object({
    email: z.string().trim().min(1, { error: 'Type your e-mail address.' }).max(200),
    password: z.string().min(1, { error: 'Type your password.' }).max(500),
  })
  .meta({
    id: 'Credentials',
    examples: [{ email: 'teacher@port-ellery.example', password: 'a long password' }],
  })

export const Session = z
  .object({
    user: z.object({ id: Id, name: z.string(), email: z.string() }),
    studio: z.object({ id: Id, name: z.string(), system: SystemId }),
    /** Send it back as the X-CSRF-Token header of every change. */
    csrfToken: z.string(),
  })
  .meta({ id: 'Session' })
