import { refDebounced } from '@vueuse/core'
import type { Ref } from 'vue'

/** About as long as the pause between two keys of somebody who types. */
const SETTLES_MS = 150

/** A text once nobody types in it any more: what is asked of the server with it is asked once a word, not once a letter. */
export function useSettled(text: Ref<string>): Readonly<Ref<string>> {
  return refDebounced(text, SETTLES_MS)
}
