import { useDark, useToggle } from '@vueuse/core'
import { defineStore } from 'pinia'

/** Light or dark; follows the system until somebody chooses. */
export const useTheme = defineStore('theme', () => {
  const isDark = useDark({ storageKey: 'jadefell.theme', disableTransition: false })
  return { isDark, toggle: useToggle(isDark) }
})
