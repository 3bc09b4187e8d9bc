import { shallowRef, watch, type ShallowRef } from 'vue'

export interface Loaded<T> {
  /** Undefined until the first answer of this id. */
  readonly data: ShallowRef<T | undefined>
  /** Asks again, keeping what is shown until the answer comes. */
  reload(): Promise<void>
  /** Shows what was saved just now; an answer that was asked for before is dropped. */
  put(value: T): void
}

/**
 * What belongs to an id, asked for anew when the id changes. Only the newest question's answer is shown: a slow one for an
 * id that is no longer looked at, or asked before something was saved, is dropped, and so is its failure.
 */
export function useLoaded<T>(id: () => string | undefined, fetch: (id: string) => Promise<T>): Loaded<T> {
  const data = shallowRef<T>()
  let newest = 0

  async function reload() {
    const of = id()
    const question = ++newest
    if (of === undefined) return void (data.value = undefined)
    try {
      const answer = await fetch(of)
      if (question === newest) data.value = answer
    } catch (error) {
      if (question === newest) throw error
    }
  }
  watch(
    id,
    () => {
      data.value = undefined
      return reload()
    },
    { immediate: true },
  )
  return {
    data,
    reload,
    put(value) {
      newest++
      data.value = value
    },
  }
}
