import type { Answer, ClientInput, RouteName } from '#contracts'
import { useNotices } from '../stores/notices'
import { callUntilAnswered } from './client'

/**
 * Saves once, however long it takes: while the server or its database is away the same save is sent again with the same
 * key, and the teacher is told once that it waits. What is refused is thrown as ever.
 */
export function saveSurely<K extends RouteName>(name: K, input: ClientInput<K>): Promise<Answer<K>> {
  const notices = useNotices()
  let isTold = false
  return callUntilAnswered(name, input, {
    idempotencyKey: crypto.randomUUID(),
    isWanted: () => true,
    onWaiting() {
      if (!isTold) notices.say('The server is away. This is saved as soon as it is back; keep the page open.')
      isTold = true
    },
  })
}
