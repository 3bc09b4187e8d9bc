import type { Transaction } from 'sequelize'
import type { Answer, HandlerInput, RouteName, Session } from '#contracts'
import type { StudioStore } from '../db/studio-store'

/** Who is signed in, as every request of theirs is answered. */
export interface SignedIn {
  readonly session: Session
  readonly sessionId: string
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
  /** Hands the browser a session, or takes it away. */
  setSessionToken(token: string | undefined): void
  /** Sends this status in place of 200. */
  setStatus(status: number): void
}

type PublicRoute = 'health.read' | 'openapi.read' | 'session.open'

export type Handler<K extends RouteName> = K extends PublicRoute
  ? (call: PublicCall, input: HandlerInput<K>) => Promise<Answer<K>>
  : (call: Call & PublicCall, input: HandlerInput<K>) => Promise<Answer<K>>

export type Handlers = { readonly [K in RouteName]: Handler<K> }
