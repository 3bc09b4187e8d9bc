import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { Door, Session, Studio } from '#contracts'
import { ApiProblem, call, setCsrfToken } from '../api/client'
import { forgetRead } from '../api/from-device'

/** Said here that somebody goes, and not yet to the server. */
const LEAVING = 'jadefell.leaving'

/** Who is signed in. */
export const useSession = defineStore('session', () => {
  const session = ref<Session>()
  /** The demo studio's key, where it hangs at the door. */
  const demo = ref<Door['demo']>(null)
  let asked = false

  function take(value: Session | undefined) {
    session.value = value
    setCsrfToken(value?.csrfToken ?? '')
  }

  /** Tells the server, and again when it is back where it is away: on this device it is so at once. */
  async function leave() {
    localStorage.setItem(LEAVING, new Date().toISOString())
    try {
      await forgetRead()
      await call('session.close', {})
      localStorage.removeItem(LEAVING)
      // What was under way when it was forgotten may have come since.
      await forgetRead()
    } catch (error) {
      if (!(error instanceof ApiProblem && error.isPassing)) throw error
    } finally {
      take(undefined)
    }
  }

  return {
    session,
    demo,
    /** Asks the server once whether the cookie still names somebody; throws when the server is away. */
    async restore({ again = false } = {}): Promise<Session | undefined> {
      if (asked && !again) return session.value
      const door = await call('door.read', {})
      take(door.session ?? undefined)
      if (door.session && localStorage.getItem(LEAVING) !== null) await leave()
      demo.value = door.demo
      asked = true
      return session.value
    },
    /** `code` of the second factor, where the server asks for one. */
    async signIn(email: string, password: string, code?: string) {
      take(await call('session.open', { body: { email, password, ...(code === undefined ? {} : { code }) } }))
      localStorage.removeItem(LEAVING)
      asked = true
    },
    /** Comes in by a key that an owner gave, with a password of one's own from now on. */
    async useKey(email: string, key: string, password: string) {
      take(await call('key.use', { body: { email, key, password } }))
      localStorage.removeItem(LEAVING)
      asked = true
    },
    signOut: leave,
    /** The studio as it was saved. */
    takeStudio(studio: Studio) {
      if (session.value) session.value = { ...session.value, studio: { ...session.value.studio, ...studio } }
    },
    /** The server has forgotten this session. */
    lose() {
      take(undefined)
    },
  }
})
