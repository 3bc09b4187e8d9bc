import {
  computed,
  onScopeDispose,
  ref,
  shallowRef,
  watch,
  type ComputedRef,
  type Ref,
  type ShallowRef,
} from 'vue'
import type { Page } from '#contracts'
import { LIST_AT_ONCE as PAGE } from './reads'

export interface List {
  /** Undefined until the first page has come. */
  readonly total: Ref<number | undefined>
  /** The id of each row that has come, in its place; undefined where a page is still to come. */
  readonly ids: ComputedRef<readonly (string | undefined)[]>
  /** Asks for the pages that these rows stand on, as far as they have not come. */
  need(from: number, to: number): void
  reload(): void
}

export interface AskedList<Query> extends List {
  /** The question that the rows in sight answer. */
  readonly answered: ShallowRef<Query | undefined>
}

/**
 * A list that is read page by page, as its rows come into sight. A new `query` begins it anew; the old rows stay in sight
 * until the first page of the new ones has come, and an answer to an older question is dropped.
 */
export function useList<Query extends object>(
  query: Ref<Query>,
  find: (query: Query & { offset: number; limit: number }) => Promise<Page<string>>,
): AskedList<Query> {
  const total = ref<number>()
  const answered = shallowRef<Query>()
  const pages = shallowRef<ReadonlyMap<number, readonly string[]>>(new Map())
  let asked = new Set<number>()
  let question = 0
  let isOpen = true
  onScopeDispose(() => (isOpen = false))

  async function ask(page: number) {
    const of = question
    asked.add(page)
    try {
      const answer = await find({ ...query.value, offset: page * PAGE, limit: PAGE })
      if (of !== question || !isOpen) return
      total.value = answer.total
      pages.value = new Map([...pages.value, [page, answer.rows]])
    } catch (error) {
      asked.delete(page)
      if (of === question && isOpen) throw error
    }
  }

  /** From the first page on: what is shown stays until it has come. */
  async function begin(first: number) {
    question++
    const of = question
    const asks = query.value
    asked = new Set([first])
    const answer = await find({ ...query.value, offset: first * PAGE, limit: PAGE })
    if (of !== question || !isOpen) return
    total.value = answer.total
    pages.value = new Map([[first, answer.rows]])
    answered.value = asks
  }

  watch(query, () => void begin(0), { immediate: true, deep: true })

  let seen = 0
  return {
    total,
    answered,
    ids: computed(() =>
      Array.from({ length: total.value ?? 0 }, (_, i) => pages.value.get(Math.floor(i / PAGE))?.[i % PAGE]),
    ),
    need(from, to) {
      seen = Math.floor(from / PAGE)
      const last = Math.floor(Math.max(from, Math.min(to, (total.value ?? 0) - 1)) / PAGE)
      for (let page = seen; page <= last; page++) if (!asked.has(page)) void ask(page)
    },
    reload: () => void begin(seen),
  }
}
