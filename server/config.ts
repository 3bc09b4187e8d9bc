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
  /** As the start command reads it: `off` makes no demo studio and shows no key of one. */
  JADEFELL_DEMO: z.string().default('on'),
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
  /** The demo studio's key hangs at the door: only where nobody but this machine comes by. */
  readonly isDemoOpen: boolean
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
    isDemoOpen: s.JADEFELL_DEMO !== 'off' && s.TRUST_PROXY === 0 && isLoopback(s.HOST),
  }
}

function isLoopback(host: string): boolean {
  return host === 'localhost' || host === '::1' || /^127\.\d+\.\d+\.\d+$/.test(host)
}
