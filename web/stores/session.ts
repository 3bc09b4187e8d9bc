import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { Door, Session, Studio } from '#contracts'
import { call, setCsrfToken } from '../api/client'

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

  return {
    session,
    demo,
    /** Asks the server once whether the cookie still names somebody; throws when the server is away. */
    async restore({ again = false } = {}): Promise<Session | undefined> {
      if (asked && !again) return session.value
      const door = await call('door.read', {})
      take(door.session ?? undefined)
      demo.value = door.demo
      asked = true
      return session.value
    },
    async signIn(email: string, password: string) {
      take(await call('session.open', { body: { email, password } }))
      asked = true
    },
    async signOut() {
      await call('session.close', {})
      take(undefined)
    },
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
