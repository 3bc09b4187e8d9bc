import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import type { CheckDraft } from '#contracts'
import type { OutboxEntry } from '../api/outbox-storage'

/** What is typed in a sheet, field by field. */
export type DraftTexts = Readonly<Record<string, string>>

interface Draft {
  readonly texts: DraftTexts
  /** What was sent of it, as JSON: only what still says the same is cleared when it arrives. */
  readonly sent?: string
}

/** A draft as versions before the outbox kept it: with its save beside it. */
interface OldDraft extends Draft {
  readonly pending?: { readonly key: string; readonly body: OldCheckDraft } | null
}
type OldCheckDraft = Omit<CheckDraft, 'exercise'> & { readonly string: string; readonly shapeId: string }

/** What a sheet said before it was cleared or played over. */
interface SetAside {
  readonly texts: DraftTexts
  readonly at: number
}
/** A slip is seen in the lesson or the one after it. */
const KEPT_ASIDE_MS = 24 * 3600_000
/** A take of minutes fills a good part of what a browser keeps. */
const SHEETS_ASIDE = 5

/** What teachers have typed and not kept yet, sheet by sheet. It stays in this browser, over a reload or a lost connection. */
export const useDrafts = defineStore('drafts', () => {
  const store = useLocalStorage<Record<string, Draft>>('jadefell.drafts', {})

  function put(sheet: string, draft: Draft | undefined) {
    const { [sheet]: _, ...others } = store.value
    const isEmpty = !draft || Object.values(draft.texts).every((text) => text.trim() === '')
    store.value = isEmpty ? others : { ...others, [sheet]: draft }
  }

  const aside = useLocalStorage<Record<string, SetAside>>('jadefell.set-aside', {})
  const textsOf = (sheet: string): DraftTexts => store.value[sheet]?.texts ?? {}
  const asideOf = (sheet: string): DraftTexts | undefined => {
    const { texts, at = 0 } = aside.value[sheet] ?? {}
    return Date.now() - at > KEPT_ASIDE_MS || JSON.stringify(texts) === JSON.stringify(textsOf(sheet))
      ? undefined
      : texts
  }

  return {
    textsOf,
    /** Sets aside what a sheet says before it says something else: the last of each of a few sheets, for a day. */
    setAside(sheet: string) {
      const texts = textsOf(sheet)
      if (Object.keys(texts).length === 0) return
      const { [sheet]: _, ...others } = aside.value
      const latest = Object.entries(others).slice(1 - SHEETS_ASIDE)
      aside.value = { ...Object.fromEntries(latest), [sheet]: { texts, at: Date.now() } }
    },
    /** Whether something else than is there now was set aside. */
    hasAside: (sheet: string): boolean => asideOf(sheet) !== undefined,
    /** Puts back what was set aside; what was there instead is set aside in its turn. */
    bringBack(sheet: string) {
      const texts = asideOf(sheet)
      if (!texts) return
      const now = textsOf(sheet)
      const { [sheet]: _, ...others } = aside.value
      aside.value =
        Object.keys(now).length === 0 ? others : { ...others, [sheet]: { texts: now, at: Date.now() } }
      put(sheet, { texts })
    },
    /** A changed draft is another save. */
    type(sheet: string, field: string, text: string) {
      put(sheet, { texts: { ...store.value[sheet]?.texts, [field]: text } })
    },
    /** Notes what is sent of a draft. */
    markSent(sheet: string, input: unknown) {
      const draft = store.value[sheet]
      if (draft) put(sheet, { ...draft, sent: JSON.stringify(input) })
    },
    /** Clears a draft; with `sent`, only if that is still what it says. */
    clear(sheet: string, sent?: unknown) {
      if (sent === undefined || store.value[sheet]?.sent === JSON.stringify(sent)) put(sheet, undefined)
    },
    /** Makes entries of the outbox of the saves that lay beside drafts in earlier versions. */
    upgrade(take: (entry: Omit<OutboxEntry, 'userId'>) => void) {
      for (const [sheet, draft] of Object.entries(store.value as Record<string, OldDraft>)) {
        if (draft.pending === undefined) continue
        if (draft.pending === null) {
          put(sheet, { texts: draft.texts })
          continue
        }
        const { string, shapeId, ...body } = draft.pending.body
        const [studentId = ''] = sheet.split(' ')
        const input = {
          params: { studentId },
          body: { ...body, exercise: { kind: 'shape', string, shapeId } },
        }
        take({
          version: 1,
          id: draft.pending.key,
          at: Date.parse(body.takenAt),
          route: 'checks.create',
          input,
          what: 'a check',
          draft: sheet,
          isUpgraded: true,
        })
        put(sheet, { texts: draft.texts, sent: JSON.stringify(input) })
      }
    },
  }
})
