import type { Transaction } from 'sequelize'
import type { Answer, HandlerInput, RouteName, Session } from '#contracts'
import type { ENDPOINTS } from '#contracts/endpoints'
import type { StudioStore } from '../db/studio-store'

/** Who is signed in, as every request of theirs is answered. */
export interface SignedIn {
  readonly session: Session
  readonly sessionId: string
  /** A backup is being put back: what is saved now would be lost. */
  readonly isFrozen: boolean
}

/** What a handler of a signed-in request knows beside its input. */
export interface Call {
  readonly store: StudioStore
  readonly signedIn: SignedIn
  readonly now: Date
  readonly transaction: Transaction | undefined
}

/** What a public handler knows: nobody is signed in. */
export interface PublicCall {
  readonly now: Date
  /** Present on a request whose cookie still names a session. */
  readonly sessionToken: string | undefined
  /** What the caller's browser says it is; empty where it says nothing. */
  readonly userAgent: string
  /** Hands the browser a session, or takes it away. */
  setSessionToken(token: string | undefined): void
  /** Whoever came in here before is not kept out by others' guesses. */
  rememberDevice(account: string): void
  /** Lets the caller keep the answer so long, s; other answers are never kept. */
  mayBeKept(seconds: number): void
  /** Sends this status in place of 200. */
  setStatus(status: number): void
}

/** What a handler of a file that comes in knows: the bytes pass through, outside any transaction. */
export interface UploadCall extends Call {
  readonly upload: {
    readonly contentType: string | undefined
    readonly declaredBytes: number | undefined
    readonly bytes: AsyncIterable<Buffer>
  }
  /**
   * Ends the upload in one transaction, once for each idempotency key; `fingerprint` tells what was sent. A second upload
   * with the key gets the first one's answer.
   */
  readonly once: <T>(fingerprint: readonly string[], work: (store: StudioStore) => Promise<T>) => Promise<T>
}

/** A file on its way out. */
export interface Download {
  readonly mediaType: string
  readonly byteCount: number
  /** Of all bytes, in hexadecimal figures. */
  readonly sha256: string
  /** The bytes from one to another, both with. */
  readonly bytes: (from: number, to: number) => AsyncIterable<Buffer>
}

type PublicRoute = 'door.read' | 'health.read' | 'live.read' | 'openapi.read' | 'session.open' | 'key.use'
/** Routes of one of the two kinds, as the contracts say. */
type RouteWith<P extends 'upload' | 'download'> = {
  [K in RouteName]: (typeof ENDPOINTS)[K] extends Record<P, object> ? K : never
}[RouteName]

export type Handler<K extends RouteName> = K extends PublicRoute
  ? (call: PublicCall, input: HandlerInput<K>) => Promise<Answer<K>>
  : K extends RouteWith<'upload'>
    ? (call: UploadCall & PublicCall, input: HandlerInput<K>) => Promise<Answer<K>>
    : K extends RouteWith<'download'>
      ? (call: Call & PublicCall, input: HandlerInput<K>) => Promise<Download>
      : (call: Call & PublicCall, input: HandlerInput<K>) => Promise<Answer<K>>

export type Handlers = { readonly [K in RouteName]: Handler<K> }
