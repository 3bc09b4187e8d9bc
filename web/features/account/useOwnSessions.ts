import type { OpenSession } from '#contracts'
import { call } from '../../api/client'
import { useLoaded } from '../../api/useLoaded'
import { useNotices } from '../../stores/notices'
import { useSession } from '../../stores/session'

/** Where one is signed in, and ending it there. */
export function useOwnSessions() {
  const session = useSession()
  const notices = useNotices()
  const sessions = useLoaded(
    () => session.session?.user.id,
    () => call('sessions.list', {}),
  )
  return {
    sessions: sessions.data,
    reload: () => sessions.reload(),
    async end(one: OpenSession) {
      await call('sessions.end', { params: { sessionId: one.id } })
      await sessions.reload()
      notices.say('That session has ended: signing in there needs the password again.')
    },
    async endOthers() {
      await call('sessions.endOthers', {})
      await sessions.reload()
      notices.say('You are signed in here alone.')
    },
  }
}
