import { useRouter } from 'vue-router'
import { useLesson } from '../../stores/lesson'
import { useSession } from '../../stores/session'

/** Ends the session here; what the page knows is forgotten with it. */
export function useSignOut(): () => Promise<void> {
  const router = useRouter()
  const session = useSession()
  const lesson = useLesson()
  return async () => {
    await session.signOut()
    lesson.end()
    await router.push({ name: 'sign-in' })
  }
}
