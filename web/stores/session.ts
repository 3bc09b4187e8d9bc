import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { Session } from '#contracts'
import { ApiProblem, call, setCsrfToken } from '../api/client'

/** Who is signed in. */
export const useSession = defineStore('session', () => {
  const session = ref<Session>()
  let asked = false

  function take(value: Session | undefined) {
    session.value = value
    setCsrfToken(value?.csrfToken ?? '')
  }

  return {
    session,
    /** Asks the server once whether the cookie still names somebody; throws when the server is away. */
    async restore(): Promise<Session | undefined> {
      if (asked) return session.value
      try {
        take(await call('session.read', {}))
      } catch (error) {
        if (!(error instanceof ApiProblem) || error.code !== 'not_signed_in') throw error
      }
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
    /** The server has forgotten this session. */
    lose() {
      take(undefined)
    },
  }
})
