import { v4 as uuid } from 'uuid'
import { defineStore } from 'pinia'
import { computed, onScopeDispose, ref, shallowRef } from 'vue'
import type { Answer, ClientInput, RouteName } from '#contracts'
import { ApiProblem, call } from '../api/client'
import { readEntries, removeEntry, writeEntry, type OutboxEntry } from '../api/outbox-storage'
import { useDrafts } from './drafts'
import { useNotices } from './notices'
import { useSession } from './session'

/** What is said of a save while it waits, and which draft it was made of. */
export interface Sending {
  /** As in “the check of Orla Venn”. */
  readonly what: string
  /** Cleared once the save is kept, unless it says something else by then. */
  readonly draft?: string
}

/** Somebody on this page who waits for the answer. */
interface Waiting {
  resolve(answer: unknown): void
  reject(error: unknown): void
}

const RETRY_MS = 1500

/** The save was taken back before the server had it. */
export class Withdrawn extends Error {}

/**
 * Everything on its way to the server that makes something new: kept in this browser until the server has said that it is
 * kept there, sent in order, again with the same key while the server or its database is away, and resumed after a reload.
 */
export const useOutbox = defineStore('outbox', () => {
  const session = useSession()
  const drafts = useDrafts()
  const notices = useNotices()
  /** In order, whoever made them. */
  const entries = shallowRef<readonly OutboxEntry[]>([])
  /** Left by another version of the page, in a form that this one cannot read. */
  const unreadable = ref<readonly string[]>([])
  /** What this browser had no room for, by its id: it is lost with the page. */
  const loose = shallowRef<Readonly<Record<string, OutboxEntry>>>({})
  const isLoose = computed(() => Object.keys(loose.value).length > 0)
  const isAway = ref(false)
  /** Why it waits. */
  const awayBecause = ref<ApiProblem['code']>()
  const callers = new Map<string, Waiting>()
  const unwanted = new Set<string>()
  /** Who wants to know when something arrived that nobody waited for. */
  const listeners = new Set<() => void>()
  let isPumping = false
  let wake = () => {}
  /** The page is closed: what waits is sent by the next one. */
  let isClosed = false
  /** The browser asks before it closes the page. */
  const holdPage = (event: BeforeUnloadEvent) => isLoose.value && event.preventDefault()
  window.addEventListener('beforeunload', holdPage)
  onScopeDispose(() => {
    window.removeEventListener('beforeunload', holdPage)
    isClosed = true
    wake()
  })

  /** Nobody else's are shown or sent. */
  const own = computed(() => entries.value.filter((entry) => entry.userId === userId()))
  const waiting = computed(() => own.value.filter((entry) => entry.refusal === undefined))
  const refused = computed(() => own.value.filter((entry) => entry.refusal !== undefined))
  const userId = () => session.session?.user.id ?? ''

  /** Saves once, however long it takes. What is refused is thrown as {@link ApiProblem}. */
  function send<K extends RouteName>(route: K, input: ClientInput<K>, sending: Sending): Promise<Answer<K>> {
    const entry: OutboxEntry = {
      version: 1,
      id: uuid(),
      at: Date.now(),
      userId: userId(),
      route,
      input,
      what: sending.what,
      draft: sending.draft ?? null,
    }
    write(entry)
    entries.value = [...entries.value, entry]
    const answer = new Promise<unknown>((resolve, reject) => callers.set(entry.id, { resolve, reject }))
    pump()
    return answer as Promise<Answer<K>>
  }

  /** Takes up what an earlier page left; called once it is known who is signed in. */
  function resume() {
    if (!session.session) return
    drafts.upgrade((entry) => writeEntry({ ...entry, userId: userId() }))
    const kept = readEntries()
    unreadable.value = kept.unreadable
    const known = new Set(entries.value.map((entry) => entry.id))
    const found = kept.entries.filter((entry) => !known.has(entry.id))
    entries.value = [...entries.value, ...found].sort((a, b) => a.at - b.at)
    pump()
  }

  function write(entry: OutboxEntry) {
    const { [entry.id]: _, ...others } = loose.value
    loose.value = writeEntry(entry) ? others : { ...others, [entry.id]: entry }
  }

  function pump() {
    wake()
    if (!isPumping) void sendAll()
  }

  async function sendAll() {
    isPumping = true
    try {
      for (let entry = waiting.value[0]; entry; entry = waiting.value[0])
        if (isClosed || !(await attempt(entry))) return
    } finally {
      isPumping = false
    }
  }

  /** Tries one save; false where it makes no sense to go on now. */
  async function attempt(entry: OutboxEntry): Promise<boolean> {
    if (unwanted.has(entry.id)) return (drop(entry, new Withdrawn()), true)
    try {
      const answer = await call(entry.route, entry.input as never, { idempotencyKey: entry.id })
      isAway.value = false
      arrived(entry, answer)
    } catch (error) {
      const problem = error instanceof ApiProblem ? error : undefined
      if (problem?.isPassing) {
        // There may be room by now.
        for (const one of Object.values(loose.value)) write(one)
        isAway.value = true
        awayBecause.value = problem.code
        if (!unwanted.has(entry.id))
          await new Promise<void>((resolve) => (setTimeout(resolve, RETRY_MS), (wake = resolve)))
        return true
      }
      isAway.value = false
      if (problem?.code === 'not_signed_in') {
        // It stays here until somebody has signed in again.
        callers.get(entry.id)?.reject(error)
        callers.delete(entry.id)
        return false
      }
      // Sent before in the words of an earlier version: the key says that it is kept already.
      if (problem?.code === 'idempotency_key_reused' && entry.isUpgraded) arrived(entry, null)
      else refuse(entry, error)
    }
    return true
  }

  function arrived(entry: OutboxEntry, answer: unknown) {
    if (entry.draft !== null) drafts.clear(entry.draft, entry.input)
    const caller = callers.get(entry.id)
    remove(entry)
    if (caller) return caller.resolve(answer)
    notices.say(`Sent at last: ${entry.what}.`)
    for (const listener of listeners) listener()
  }

  /** Where somebody waits they hear why; else it stays, to be looked at. */
  function refuse(entry: OutboxEntry, error: unknown) {
    if (callers.has(entry.id)) return drop(entry, error)
    const refusal = error instanceof Error ? error.message : 'The server did not say why.'
    replace({ ...entry, refusal })
  }

  function drop(entry: OutboxEntry, error: unknown) {
    const caller = callers.get(entry.id)
    remove(entry)
    caller?.reject(error)
  }

  function remove({ id }: OutboxEntry) {
    removeEntry(id)
    const { [id]: _, ...others } = loose.value
    loose.value = others
    callers.delete(id)
    unwanted.delete(id)
    entries.value = entries.value.filter((entry) => entry.id !== id)
  }

  function replace(entry: OutboxEntry) {
    write(entry)
    entries.value = entries.value.map((one) => (one.id === entry.id ? entry : one))
  }

  return {
    waiting,
    refused,
    unreadable,
    isAway,
    awayBecause,
    /** Something that waits lies nowhere but in this page. */
    isLoose,
    send,
    resume,
    /** Whether a draft is on its way. */
    isSending: (draft: string) => waiting.value.some((entry) => entry.draft === draft),
    /** Takes a draft's save back: it is sent no more, unless it is under way just now and arrives. */
    withdraw(draft: string) {
      for (const { id, draft: of } of waiting.value) if (of === draft) unwanted.add(id)
      wake()
    },
    tryAgain(id: string) {
      const entry = refused.value.find((one) => one.id === id)
      if (!entry) return
      const { refusal: _, ...again } = entry
      replace(again)
      pump()
    },
    throwAway(id: string) {
      removeEntry(id)
      entries.value = entries.value.filter((entry) => entry.id !== id)
      unreadable.value = unreadable.value.filter((one) => one !== id)
    },
    /** Hears of what arrived with nobody waiting for it: what is shown may be old. Returns how to stop. */
    onArrival(listener: () => void) {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
  }
})
