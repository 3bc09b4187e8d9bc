import { z } from 'zod'

const Setting = z.object({
  PORT: z.coerce.number().int().min(0).max(65_535).default(4747),
  HOST: z.string().default('127.0.0.1'),
  DATABASE_URL: z.url({ protocol: /^(mariadb|mysql)$/ }),
  SESSION_SECRET: z.string().min(32, { error: 'at least 32 characters' }),
  /** On behind HTTPS: the session cookie is then never sent in the clear. */
  COOKIE_SECURE: z.stringbool().default(false),
  /** How many proxies in front are trusted to say who calls. */
  TRUST_PROXY: z.coerce.number().int().min(0).default(0),
  LOG_LEVEL: z.enum(['silent', 'fatal', 'error', 'warn', 'info', 'debug']).default('info'),
})

/** Settings of the web server, complete and checked. */
export interface Config {
  readonly port: number
  readonly host: string
  readonly databaseUrl: string
  readonly sessionSecret: string
  readonly cookieSecure: boolean
  readonly trustProxy: number
  readonly logLevel: string
}

/** Reads the settings from an environment; throws with every fault in one message, since nothing can start without them. */
export function readConfig(env: Record<string, string | undefined>): Config {
  const parsed = Setting.safeParse(env)
  if (!parsed.success) {
    const faults = parsed.error.issues.map((issue) => `  ${issue.path.join('.')}: ${issue.message}`)
    throw new Error(`These settings cannot be used:\n${faults.join('\n')}`)
  }
  const s = parsed.data
  return {
    port: s.PORT,
    host: s.HOST,
    databaseUrl: s.DATABASE_URL,
    sessionSecret: s.SESSION_SECRET,
    cookieSecure: s.COOKIE_SECURE,
    trustProxy: s.TRUST_PROXY,
    logLevel: s.LOG_LEVEL,
  }
}
